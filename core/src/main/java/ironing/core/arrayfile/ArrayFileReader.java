package ironing.core.arrayfile;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;

/**
 * Reads what a {@link ArrayFileWriter} wrote, in the same order.
 *
 * <p>Cost: a copy of what is read, a hundred megabytes in some ten milliseconds when the system has
 * the file in memory. Threads: one.
 */
public final class ArrayFileReader implements Closeable {
  private final FileChannel file;
  private final ByteBuffer head =
      ByteBuffer.allocateDirect(ArrayFileWriter.HEAD).order(ByteOrder.LITTLE_ENDIAN);
  private final ByteBuffer block =
      ByteBuffer.allocateDirect(ArrayFileWriter.BLOCK).order(ByteOrder.LITTLE_ENDIAN);
  private final CRC32C crc = new CRC32C();

  /** The file is not as it was written. */
  public static final class DamagedException extends IOException {
    private static final long serialVersionUID = 1;

    DamagedException(String reason) {
      super(reason);
    }
  }

  /**
   * @throws java.nio.file.NoSuchFileException when there is none
   */
  public ArrayFileReader(Path file) throws IOException {
    this.file = FileChannel.open(file, StandardOpenOption.READ);
    block.limit(0);
  }

  public byte[] bytes() throws IOException {
    byte[] all = new byte[count()];
    some(all.length, Byte.BYTES, (from, at, some) -> from.slice().get(all, at, some));
    return all;
  }

  public int[] ints() throws IOException {
    return ints(count());
  }

  private int[] ints(int count) throws IOException {
    int[] all = new int[count];
    some(count, Integer.BYTES, (from, at, some) -> from.asIntBuffer().get(all, at, some));
    return all;
  }

  public long[] longs() throws IOException {
    long[] all = new long[count()];
    some(all.length, Long.BYTES, (from, at, some) -> from.asLongBuffer().get(all, at, some));
    return all;
  }

  public String text() throws IOException {
    return new String(bytes(), StandardCharsets.UTF_8);
  }

  public List<String> texts() throws IOException {
    return blobs().stream().map(b -> new String(b, StandardCharsets.UTF_8)).toList();
  }

  public List<byte[]> blobs() throws IOException {
    int[] length = ints();
    ByteBuffer joined = ByteBuffer.wrap(bytes());
    List<byte[]> blobs = new ArrayList<>(length.length);
    for (int l : length) {
      byte[] blob = new byte[l];
      joined.get(blob);
      blobs.add(blob);
    }
    return blobs;
  }

  public int[][] rows() throws IOException {
    int[] length = ints();
    int[][] rows = new int[length.length][];
    for (int r = 0; r < rows.length; r++) rows[r] = ints(length[r]);
    return rows;
  }

  private int count() throws IOException {
    if (block.remaining() < Integer.BYTES) next();
    return block.getInt();
  }

  private void some(int count, int width, ArrayFileWriter.Stretch stretch) throws IOException {
    for (int done = 0; done < count; ) {
      if (block.remaining() < width) next();
      int there = Math.min(count - done, block.remaining() / width);
      stretch.move(block, done, there);
      block.position(block.position() + there * width);
      done += there;
    }
  }

  private void next() throws IOException {
    fill(head.clear());
    int length = head.getInt(0);
    if (length <= 0 || length > block.capacity())
      throw new DamagedException("it has a block of " + length + " bytes");
    fill(block.clear().limit(length));
    crc.reset();
    crc.update(block.duplicate());
    if ((int) crc.getValue() != head.getInt(Integer.BYTES))
      throw new DamagedException("it is not as it was written");
  }

  private void fill(ByteBuffer to) throws IOException {
    while (to.hasRemaining())
      if (file.read(to) < 0) throw new DamagedException("it ends too early");
    to.flip();
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
