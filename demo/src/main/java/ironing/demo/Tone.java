package ironing.demo;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Makes a mono 8 kHz, 8 bit WAV from two lines: {@code hertz 440}, {@code milliseconds 100}. */
final class Tone {
  private static final int SAMPLES_PER_SECOND = 8000;

  private Tone() {}

  static byte[] wav(List<String> lines) {
    Map<String, Integer> tone = new HashMap<>();
    for (String l : lines)
      if (l.indexOf(' ') > 0) tone.put(l.split(" ")[0], Integer.parseInt(l.split(" ")[1]));
    int samples = SAMPLES_PER_SECOND * tone.get("milliseconds") / 1000;
    ByteBuffer b = ByteBuffer.allocate(44 + samples).order(ByteOrder.LITTLE_ENDIAN);
    b.put("RIFF".getBytes(StandardCharsets.US_ASCII))
        .putInt(36 + samples)
        .put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII));
    b.putInt(16)
        .putShort((short) 1)
        .putShort((short) 1)
        .putInt(SAMPLES_PER_SECOND)
        .putInt(SAMPLES_PER_SECOND)
        .putShort((short) 1)
        .putShort((short) 8);
    b.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(samples);
    for (int i = 0; i < samples; i++)
      b.put(
          (byte)
              (128
                  + Math.round(
                      90 * Math.sin(2 * Math.PI * tone.get("hertz") * i / SAMPLES_PER_SECOND))));
    return b.array();
  }
}
