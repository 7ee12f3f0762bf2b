package ironing.core.text;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * Text of a file that somebody else has written: UTF-8 with a byte order mark or without, UTF-16
 * with one, else Windows-1252, in which every byte is a letter.
 *
 * @param text without the mark
 * @param form how it was written
 * @param remark a sentence about the encoding where it is not UTF-8
 */
public record DecodedText(String text, TextForm form, Optional<String> remark) {
  private static final Charset WINDOWS = Charset.forName("windows-1252");

  public static DecodedText of(byte[] file) {
    if (begins(file, 0xEF, 0xBB, 0xBF))
      return new DecodedText(
          new String(file, 3, file.length - 3, StandardCharsets.UTF_8),
          new TextForm(StandardCharsets.UTF_8, true),
          Optional.empty());
    if (begins(file, 0xFF, 0xFE)) return utf16(file, StandardCharsets.UTF_16LE);
    if (begins(file, 0xFE, 0xFF)) return utf16(file, StandardCharsets.UTF_16BE);
    String quick = new String(file, StandardCharsets.UTF_8);
    TextForm plain = new TextForm(StandardCharsets.UTF_8, false);
    // what is malformed would show as the character that stands for such
    if (quick.indexOf('\uFFFD') < 0) return new DecodedText(quick, plain, Optional.empty());
    try {
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(file)).toString();
      return new DecodedText(text, plain, Optional.empty());
    } catch (CharacterCodingException e) {
      return new DecodedText(
          new String(file, WINDOWS),
          new TextForm(WINDOWS, false),
          Optional.of(
              "It is not UTF-8; it was read as Windows-1252, so look at the accents in names."));
    }
  }

  private static DecodedText utf16(byte[] file, Charset charset) {
    return new DecodedText(
        new String(file, 2, file.length - 2, charset),
        new TextForm(charset, true),
        Optional.of("It is written in UTF-16."));
  }

  private static boolean begins(byte[] file, int... mark) {
    if (file.length < mark.length) return false;
    for (int i = 0; i < mark.length; i++) if ((file[i] & 0xFF) != mark[i]) return false;
    return true;
  }
}
