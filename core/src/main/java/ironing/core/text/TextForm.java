package ironing.core.text;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * How a text is written as bytes.
 *
 * @param mark whether a byte order mark stands in front
 */
public record TextForm(Charset charset, boolean mark) {
  /** The text written so; empty where the character set lacks one of its characters. */
  public Optional<byte[]> encode(String text) {
    if (charset.equals(StandardCharsets.UTF_8) && !mark) {
      byte[] quick = text.getBytes(charset);
      // all of it one byte a character: nothing was replaced
      if (quick.length == text.length() && text.indexOf('?') < 0) return Optional.of(quick);
    }
    try {
      ByteBuffer bytes = charset.newEncoder().encode(CharBuffer.wrap(text));
      ByteArrayOutputStream out = new ByteArrayOutputStream(bytes.remaining() + 3);
      if (mark) out.writeBytes("\uFEFF".getBytes(charset));
      out.write(bytes.array(), bytes.arrayOffset(), bytes.remaining());
      return Optional.of(out.toByteArray());
    } catch (CharacterCodingException e) {
      return Optional.empty();
    }
  }
}
