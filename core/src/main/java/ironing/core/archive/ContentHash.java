package ironing.core.archive;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) as 64 lower-case hexadecimal digits. Cost: one pass over the bytes. */
public final class ContentHash {
  private static final int AT_ONCE = 64 * 1024;

  // most files are smaller than a buffer, and clearing one costs more than hashing them
  private static final ThreadLocal<ByteBuffer> BUFFER =
      ThreadLocal.withInitial(() -> ByteBuffer.allocate(AT_ONCE));

  private ContentHash() {}

  public static String of(byte[] bytes) {
    return HexFormat.of().formatHex(digest().digest(bytes));
  }

  public static String of(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8));
  }

  public static String of(Path file) throws IOException {
    MessageDigest sha = digest();
    ByteBuffer buffer = BUFFER.get();
    try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
      while (in.read(buffer.clear()) >= 0) sha.update(buffer.flip());
    }
    return HexFormat.of().formatHex(sha.digest());
  }

  public static String of(InputStream in) throws IOException {
    MessageDigest sha = digest();
    byte[] buffer = new byte[AT_ONCE];
    int n;
    while ((n = in.read(buffer)) >= 0) sha.update(buffer, 0, n);
    return HexFormat.of().formatHex(sha.digest());
  }

  /** A fresh digest, for callers that hash while they copy. */
  public static MessageDigest digest() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
