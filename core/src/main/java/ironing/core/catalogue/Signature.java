package ironing.core.catalogue;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.MessageDigest;
import java.security.PublicKey;
import java.security.spec.X509EncodedKeySpec;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;

/** Signatures of catalogues: Ed25519 (RFC 8032) over the bytes of {@code catalogue.json}. */
public final class Signature {
  /** How many bytes a public key has. */
  public static final int KEY_BYTES = 32;

  private static final int SIGNATURE_BYTES = 64;

  /** What stands before a raw key in SubjectPublicKeyInfo: RFC 8410, section 10.1. */
  private static final byte[] BEFORE_KEY = HexFormat.of().parseHex("302a300506032b6570032100");

  private Signature() {}

  /**
   * Whether a signature holds.
   *
   * @param key the public key in base64
   * @param signature the text of {@code catalogue.json.sig}: 64 bytes in base64, with blanks or
   *     line ends around it or not
   */
  public static boolean holds(String key, byte[] signed, String signature) {
    try {
      byte[] raw = Base64.getDecoder().decode(key);
      byte[] sig = Base64.getMimeDecoder().decode(signature.strip());
      if (raw.length != KEY_BYTES || sig.length != SIGNATURE_BYTES) return false;
      byte[] spki = Arrays.copyOf(BEFORE_KEY, BEFORE_KEY.length + KEY_BYTES);
      System.arraycopy(raw, 0, spki, BEFORE_KEY.length, KEY_BYTES);
      PublicKey pub =
          KeyFactory.getInstance("Ed25519").generatePublic(new X509EncodedKeySpec(spki));
      java.security.Signature check = java.security.Signature.getInstance("Ed25519");
      check.initVerify(pub);
      check.update(signed);
      return check.verify(sig);
    } catch (GeneralSecurityException | IllegalArgumentException e) {
      // a key or a signature that is none: nothing is signed by it
      return false;
    }
  }

  /** What a person compares a key by: the SHA-256 of its 32 bytes, in hexadecimal digits. */
  public static String fingerprint(String key) {
    try {
      byte[] raw;
      try {
        raw = Base64.getDecoder().decode(key);
      } catch (IllegalArgumentException e) {
        raw = key.getBytes(StandardCharsets.UTF_8);
      }
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(raw));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
