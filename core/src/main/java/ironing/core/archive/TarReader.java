package ironing.core.archive;

import java.io.BufferedInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;

/** Tar (POSIX ustar and pax, GNU) below any compression. */
final class TarReader {
  private TarReader() {}

  /** From packed bytes to tar's. */
  interface Decoder {
    InputStream over(InputStream packed) throws IOException;
  }

  static void read(Path archive, Sink sink, Decoder decoder) throws IOException {
    // a tar has no list of its own: how far it is, its packed bytes tell
    sink.expect(-1);
    long all = Files.size(archive);
    try (InputStream packed =
            new Counted(new BufferedInputStream(Files.newInputStream(archive)), sink, all);
        InputStream unpacked = ReadFailure.opening(null, () -> decoder.over(packed));
        TarArchiveInputStream tar = new TarArchiveInputStream(unpacked, "UTF-8")) {
      int seen = 0;
      for (TarArchiveEntry e = next(tar); e != null; e = next(tar)) {
        seen++;
        entry(tar, e, sink);
      }
      if (seen == 0) {
        throw ArchiveException.notReadable(
            sink.archive(),
            "It is compressed, but holds no archive.",
            "Unpack it by hand and pack what it holds as a zip.",
            null);
      }
      // the compression's own checksum stands behind the last entry: read on, so that it is checked
      byte[] rest = new byte[8192];
      while (ReadFailure.opening(null, () -> unpacked.read(rest)) >= 0) {}
    }
  }

  private static void entry(TarArchiveInputStream tar, TarArchiveEntry e, Sink sink)
      throws IOException {
    String path = Sink.fromHere(e.getName());
    if (!e.isCheckSumOK()) throw sink.refused(path, "the checksum of its header is wrong");
    if (path.isEmpty()) return;
    if (e.isDirectory()) sink.folder(path);
    else if (e.isSymbolicLink()) sink.link(path, e.getLinkName());
    else if (e.isLink()) sink.hardLink(path, e.getLinkName());
    else if (!e.isFile() || e.isCharacterDevice() || e.isBlockDevice() || e.isFIFO())
      throw sink.refused(path, "it is a device");
    else sink.file(path, tar, e.getSize(), -1);
  }

  private static TarArchiveEntry next(TarArchiveInputStream tar) {
    return ReadFailure.opening(null, tar::getNextEntry);
  }

  /** Says now and then how many packed bytes have been read. */
  private static final class Counted extends FilterInputStream {
    private static final int TELL_EVERY = 256 * 1024;
    private final Sink sink;
    private final long all;
    private long read;
    private long told;

    Counted(InputStream in, Sink sink, long all) {
      super(in);
      this.sink = sink;
      this.all = all;
    }

    @Override
    public int read() throws IOException {
      int b = super.read();
      if (b >= 0) count(1);
      return b;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      int n = super.read(b, off, len);
      if (n > 0) count(n);
      return n;
    }

    private void count(int n) {
      read += n;
      if (read - told < TELL_EVERY && told > 0) return;
      told = read;
      sink.readSoFar(read, all);
    }
  }
}
