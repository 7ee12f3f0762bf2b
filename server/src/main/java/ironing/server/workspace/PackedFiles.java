package ironing.server.workspace;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;

/**
 * The files of a mod in one row. Each path is written as how much of the one before it repeats, and
 * the rest; each content as the 32 bytes of its SHA-256.
 *
 * <p>Layout, numbers as variable-length integers of seven bits a byte, the lowest first: how many
 * files; then for each the length of its pack’s name and, where that is not as before, the name;
 * bytes of the path before that are kept; bytes that follow, and they; size; SHA-256; bytes of
 * where an edited file lies, and they.
 */
final class PackedFiles {
  /** About how many bytes a file takes. */
  static final int USUAL_BYTES = 64;

  private static final int SHA_BYTES = 32;

  private PackedFiles() {}

  /**
   * @param stored where its bytes lie below the mod's folder, null for its own place
   */
  record File(String pack, String path, long sizeBytes, String sha256, String stored) {}

  /** Takes the files one by one. */
  interface Visitor {
    /**
     * @param path UTF-8, {@code length} bytes of it; another path lies there afterwards
     * @param from holds the SHA-256 from an offset on; it is read only
     * @param stored null for its own place
     */
    void file(
        String pack,
        byte[] path,
        int length,
        long sizeBytes,
        byte[] from,
        int offset,
        String stored);
  }

  /**
   * @param files sorted by pack, then path, so that little of a path is new
   */
  static byte[] pack(List<File> files) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    number(out, files.size());
    byte[] before = {};
    String pack = "";
    for (File f : files) {
      if (f.pack().equals(pack)) {
        number(out, 0);
      } else {
        byte[] name = f.pack().getBytes(StandardCharsets.UTF_8);
        number(out, name.length + 1L);
        out.writeBytes(name);
        pack = f.pack();
      }
      byte[] path = f.path().getBytes(StandardCharsets.UTF_8);
      int kept = Arrays.mismatch(before, path);
      if (kept < 0) kept = path.length;
      number(out, kept);
      number(out, path.length - kept);
      out.write(path, kept, path.length - kept);
      number(out, f.sizeBytes());
      out.writeBytes(HexFormat.of().parseHex(f.sha256()));
      byte[] stored =
          f.stored() == null ? new byte[0] : f.stored().getBytes(StandardCharsets.UTF_8);
      number(out, stored.length);
      out.writeBytes(stored);
      before = path;
    }
    return out.toByteArray();
  }

  private static void number(ByteArrayOutputStream out, long n) {
    while (n >= 128) {
      out.write((int) (n & 127 | 128));
      n >>>= 7;
    }
    out.write((int) n);
  }

  static void unpack(byte[] packed, Visitor visitor) {
    new Reader(packed).read(visitor);
  }

  private static final class Reader {
    private final byte[] in;
    private int at;
    private byte[] path = new byte[256];

    Reader(byte[] in) {
      this.in = in;
    }

    void read(Visitor visitor) {
      String pack = "";
      for (long left = number(); left > 0; left--) {
        int packLength = (int) number();
        if (packLength > 0) pack = text(packLength - 1);
        int kept = (int) number(), fresh = (int) number();
        if (kept + fresh > path.length) path = Arrays.copyOf(path, (kept + fresh) * 2);
        System.arraycopy(in, at, path, kept, fresh);
        at += fresh;
        long size = number();
        int sha = at;
        at += SHA_BYTES;
        int stored = (int) number();
        visitor.file(pack, path, kept + fresh, size, in, sha, stored == 0 ? null : text(stored));
      }
    }

    private String text(int length) {
      at += length;
      return new String(in, at - length, length, StandardCharsets.UTF_8);
    }

    private long number() {
      long n = 0;
      for (int shift = 0; ; shift += 7) {
        byte b = in[at++];
        n |= (b & 127L) << shift;
        if (b >= 0) return n;
      }
    }
  }
}
