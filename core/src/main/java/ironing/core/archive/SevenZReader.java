package ironing.core.archive;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.apache.commons.compress.MemoryLimitException;
import org.apache.commons.compress.PasswordRequiredException;
import org.apache.commons.compress.archivers.sevenz.SevenZArchiveEntry;
import org.apache.commons.compress.archivers.sevenz.SevenZFile;

/**
 * 7z. Its list is always read here, and every entry passes through the {@link Sink}; the bytes are
 * decoded here too, or by the Debian package's program, which is faster and has its own memory.
 */
final class SevenZReader {
  // what one decoder takes at first; one that needs more says how much, and begins again with that
  private static final int FIRST_KIB = 96 * 1024;
  // starting a program costs more than a small archive does
  private static final long WORTH_A_PROGRAM_BYTES = 1 << 20;

  private SevenZReader() {}

  static void read(Path archive, Sink sink, DecoderMemory memory, Optional<Path> program)
      throws IOException {
    int need = Math.min(FIRST_KIB, memory.totalKib());
    if (program.isPresent() && archive.toFile().length() >= WORTH_A_PROGRAM_BYTES) {
      memory.during(need, () -> byProgram(archive, sink, need, program.get()));
      return;
    }
    int share = need;
    while (true) {
      int kib = share;
      try {
        memory.during(kib, () -> here(archive, sink, kib));
        return;
      } catch (TooBig e) {
        sink.restart();
        if (e.needKib > memory.totalKib()) {
          if (program.isEmpty()) throw tooBig(sink, e, memory);
          byProgram(archive, sink, kib, program.get());
          return;
        }
        share = (int) e.needKib;
      }
    }
  }

  private static final class TooBig extends RuntimeException {
    private static final long serialVersionUID = 1;
    private final long needKib;

    TooBig(MemoryLimitException e) {
      super(e);
      this.needKib = e.getMemoryNeededInKb();
    }
  }

  private static ArchiveException tooBig(Sink sink, TooBig e, DecoderMemory memory) {
    return ArchiveException.notReadable(
        sink.archive(),
        "Unpacking it takes "
            + (e.needKib >> 10)
            + " MiB of memory; Ironing’s own reader has "
            + (memory.totalKib() >> 10)
            + " MiB.",
        "Install the Debian package 7zip (sudo apt-get install 7zip) and bring it in again: that"
            + " program is used then.",
        e);
  }

  private static void here(Path archive, Sink sink, int memoryKib) throws IOException {
    try (SevenZFile file = open(archive, sink, memoryKib)) {
      sink.expect(total(file));
      for (SevenZArchiveEntry e = next(file); e != null; e = next(file)) {
        SevenZArchiveEntry entry = e;
        take(e, sink, () -> bytes(file), crc(entry));
      }
    }
  }

  private static SevenZFile open(Path archive, Sink sink, int memoryKib) {
    try {
      return SevenZFile.builder().setPath(archive).setMaxMemoryLimitKiB(memoryKib).get();
    } catch (PasswordRequiredException e) {
      throw ArchiveException.encrypted(sink.archive(), "(its list of entries)");
    } catch (MemoryLimitException e) {
      throw new TooBig(e);
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(null, e);
    }
  }

  private static SevenZArchiveEntry next(SevenZFile file) {
    try {
      return file.getNextEntry();
    } catch (MemoryLimitException e) {
      throw new TooBig(e);
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(null, e);
    }
  }

  private static long total(SevenZFile file) {
    long sum = 0;
    for (SevenZArchiveEntry e : file.getEntries()) if (e.hasStream()) sum += e.getSize();
    return sum;
  }

  private static long crc(SevenZArchiveEntry e) {
    return e.getHasCrc() ? e.getCrcValue() : -1;
  }

  private interface Bytes {
    InputStream open() throws IOException;
  }

  private static void take(SevenZArchiveEntry e, Sink sink, Bytes bytes, long crc)
      throws IOException {
    String path = Sink.fromHere(e.getName());
    if (e.isAntiItem()) throw sink.refused(path, "it asks for a deletion");
    boolean unixMode = e.getHasWindowsAttributes() && (e.getWindowsAttributes() & 0x8000) != 0;
    int type = unixMode ? (e.getWindowsAttributes() >>> 16) & 0170000 : 0;
    if (e.isDirectory()) sink.folder(path);
    else if (type == 0120000) sink.link(path, bytes.open());
    else if (type != 0 && type != 0100000) throw sink.refused(path, "it is a device");
    else sink.file(path, bytes.open(), e.getSize(), crc);
  }

  private static InputStream bytes(SevenZFile file) {
    return new InputStream() {
      @Override
      public int read() throws IOException {
        return file.read();
      }

      @Override
      public int read(byte[] b, int off, int len) throws IOException {
        try {
          return file.read(b, off, len);
        } catch (MemoryLimitException e) {
          throw new TooBig(e);
        }
      }
    };
  }

  // ---- by the program: it writes the content of all entries to its output, one behind the other,
  // in the order of the list; the list says where each ends

  private static void byProgram(Path archive, Sink sink, int listKib, Path program)
      throws IOException {
    List<SevenZArchiveEntry> entries = new ArrayList<>();
    try (SevenZFile file = open(archive, sink, listKib)) {
      file.getEntries().forEach(entries::add);
      sink.expect(total(file));
    }
    Process run =
        new ProcessBuilder(
                program.toString(), "x", "-so", "-bd", "-y", "-p", "--", archive.toString())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    try (InputStream out = run.getInputStream()) {
      run.getOutputStream().close();
      for (SevenZArchiveEntry e : entries) {
        long size = e.hasStream() ? e.getSize() : 0;
        take(e, sink, () -> new Piece(out, size), crc(e));
      }
      if (out.read() >= 0)
        throw new ReadFailure(null, new IOException("it holds more than it lists"));
      if (run.waitFor() != 0)
        throw new ReadFailure(null, new IOException("the program 7zz gave it up"));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException(e);
    } finally {
      run.destroyForcibly();
      try {
        run.waitFor(5, TimeUnit.SECONDS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
    }
  }

  /** The next so many bytes of a stream; closing it leaves the stream open. */
  private static final class Piece extends FilterInputStream {
    private long left;

    Piece(InputStream in, long bytes) {
      super(in);
      this.left = bytes;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      if (left == 0) return -1;
      int n = super.read(b, off, (int) Math.min(len, left));
      if (n < 0) throw new java.io.EOFException("it ends too early");
      left -= n;
      return n;
    }

    @Override
    public void close() {}
  }
}
