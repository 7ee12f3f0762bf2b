package ironing.core.arrayfile;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.zip.CRC32C;

/**
 * Writes arrays and texts one behind the other, for a {@link ArrayFileReader} that asks for them in
 * the same order.
 *
 * <p>Layout: blocks of at most {@link #BLOCK} bytes, before each its length and its CRC-32C (RFC
 * 3720, appendix B.4), four bytes each; in them arrays, before each how many numbers it has. Lowest
 * byte first. A reader hands nothing out of a block that is not as it was written.
 *
 * <p>Cost: a copy in memory, and the disk. Threads: one.
 */
public final class ArrayFileWriter implements Closeable {
  static final int BLOCK = 1 << 20;
  static final int HEAD = 8;

  private final FileChannel file;
  private final ByteBuffer block =
      ByteBuffer.allocateDirect(HEAD + BLOCK).order(ByteOrder.LITTLE_ENDIAN);
  private final CRC32C crc = new CRC32C();

  /**
   * @param file overwritten when it is there
   */
  public ArrayFileWriter(Path file) throws IOException {
    this.file =
        FileChannel.open(
            file,
            StandardOpenOption.CREATE,
            StandardOpenOption.TRUNCATE_EXISTING,
            StandardOpenOption.WRITE);
    block.position(HEAD);
  }

  /** Some numbers of an array, between the array and the place in the block where they lie. */
  interface Stretch {
    void move(ByteBuffer block, int from, int count);
  }

  public void bytes(byte[] all) throws IOException {
    bytes(all, all.length);
  }

  /**
   * @param count of them, from the first on
   */
  public void bytes(byte[] all, int count) throws IOException {
    array(count, Byte.BYTES, (to, from, some) -> to.slice().put(all, from, some));
  }

  public void ints(int[] all) throws IOException {
    ints(all, all.length);
  }

  /**
   * @param count of them, from the first on
   */
  public void ints(int[] all, int count) throws IOException {
    array(count, Integer.BYTES, (to, from, some) -> to.asIntBuffer().put(all, from, some));
  }

  public void longs(long[] all) throws IOException {
    array(all.length, Long.BYTES, (to, from, some) -> to.asLongBuffer().put(all, from, some));
  }

  public void text(String text) throws IOException {
    bytes(text.getBytes(StandardCharsets.UTF_8));
  }

  public void texts(List<String> texts) throws IOException {
    blobs(texts.stream().map(t -> t.getBytes(StandardCharsets.UTF_8)).toList());
  }

  /** Short arrays of bytes as one long one. */
  public void blobs(List<byte[]> all) throws IOException {
    ints(all.stream().mapToInt(b -> b.length).toArray());
    int length = Math.toIntExact(all.stream().mapToLong(b -> b.length).sum());
    ByteBuffer joined = ByteBuffer.allocate(length);
    all.forEach(joined::put);
    bytes(joined.array());
  }

  /** Arrays of any length each. */
  public void rows(int[][] rows) throws IOException {
    int[] length = new int[rows.length];
    for (int r = 0; r < rows.length; r++) length[r] = rows[r].length;
    ints(length);
    for (int[] row : rows)
      some(row.length, Integer.BYTES, (to, from, some) -> to.asIntBuffer().put(row, from, some));
  }

  private void array(int count, int width, Stretch stretch) throws IOException {
    if (block.remaining() < Integer.BYTES) flush();
    block.putInt(count);
    some(count, width, stretch);
  }

  private void some(int count, int width, Stretch stretch) throws IOException {
    for (int done = 0; done < count; ) {
      if (block.remaining() < width) flush();
      int fits = Math.min(count - done, block.remaining() / width);
      stretch.move(block, done, fits);
      block.position(block.position() + fits * width);
      done += fits;
    }
  }

  private void flush() throws IOException {
    int length = block.position() - HEAD;
    if (length == 0) return;
    crc.reset();
    crc.update(block.duplicate().flip().position(HEAD));
    block.putInt(0, length).putInt(Integer.BYTES, (int) crc.getValue()).flip();
    while (block.hasRemaining()) file.write(block);
    block.clear().position(HEAD);
  }

  /** Writes what is still in memory, and waits until all of it is on the disk. */
  public void finish() throws IOException {
    flush();
    file.force(true);
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
