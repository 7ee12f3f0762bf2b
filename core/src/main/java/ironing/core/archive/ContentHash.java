package ironing.core.archive;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) as 64 lower-case hexadecimal digits. Cost: one pass over the bytes. */
public final class ContentHash {
  private ContentHash() {}

  public static String of(byte[] bytes) {
    return HexFormat.of().formatHex(digest().digest(bytes));
  }

  public static String of(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8));
  }

  public static String of(Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return of(in);
    }
  }

  public static String of(InputStream in) throws IOException {
    MessageDigest sha = digest();
    byte[] buffer = new byte[64 * 1024];
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
