package ironing.core.plugin;

import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Shapes.Shape;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.function.UnaryOperator;

/**
 * Copies records from one plugin into another without making values of them: only their owner and
 * id, the references in them and texts that hold ids are written anew.
 *
 * <p>A record is in the encoding that a writer chooses, for there is a table of it; so is the copy.
 *
 * <p>Threads: one copy, one thread. Cost: linear in the bytes.
 */
public final class RecordCopy {
  private static final int MAX_KEY_BYTES = 32;

  /** Where a reference of the plugin that is copied from leads to in the other. */
  public interface Keys {
    /** The owner as the other plugin's header numbers it, in the upper half, and the id. */
    long of(int owner, int id);

    static long key(int owner, int id) {
      return (long) owner << 32 | id;
    }
  }

  private final Shapes shapes;
  private byte[] out = new byte[1 << 16];
  private int size;
  private byte[] in;
  private int at;
  private int copied;
  private Keys keys;
  private UnaryOperator<String> texts;

  public RecordCopy(Shapes shapes) {
    this.shapes = shapes;
  }

  /** All that was copied. */
  public byte[] bytes() {
    return Arrays.copyOf(out, size);
  }

  /**
   * Copies one record.
   *
   * @param file the bytes that the table was read from
   * @param key what it is called in the other plugin
   * @param texts what becomes of a text that holds ids
   */
  public void copy(
      RecordTable t, int row, Bytes file, long key, Keys keys, UnaryOperator<String> texts)
      throws IOException {
    this.keys = keys;
    this.texts = texts;
    in = t.item(row, file);
    at = 1;
    skip(length(octet()));
    room(MAX_KEY_BYTES + at);
    System.arraycopy(in, 0, out, size, at);
    size += at;
    whole((int) (key >>> 32));
    whole((int) key);
    // the owner and the id that it had
    argument(octet());
    argument(octet());
    copied = at;
    if (!t.removed(row)) value(shapes.of(t.type(row)));
    else at++;
    if (at != in.length)
      throw PluginException.of(t.name(), "the file has changed since it was looked through");
    flush(at);
  }

  /** Puts records in that were written elsewhere, as they are. */
  public void add(byte[] written) {
    room(written.length);
    System.arraycopy(written, 0, out, size, written.length);
    size += written.length;
  }

  private void value(Shape shape) {
    int start = at, head = octet(), major = head >> 5;
    switch (major) {
      case 0, 1, 7 -> skip(width(head & 31));
      case 2 -> skip(length(head));
      case 3 -> {
        int length = length(head), from = at;
        skip(length);
        if (shape.field.holdsIds()) text(start, from, length);
      }
      case 4 -> {
        Shape item = shape.item();
        for (int left = length(head); left > 0; left--) value(item);
      }
      case 5 -> map(shape, length(head));
      default -> ref(start);
    }
  }

  private void map(Shape shape, int count) {
    for (int left = count; left > 0; left--) {
      int length = length(octet()), from = at;
      skip(length);
      // names matter only where some text below may hold ids
      value(shape.holdsIds ? shape.child(Prints.name(in, from, length)) : Shape.WHOLE);
    }
  }

  private void ref(int start) {
    // tag 39 around a list of two
    at += 2;
    long to = keys.of((int) argument(octet()), (int) argument(octet()));
    flush(start);
    room(3 + MAX_KEY_BYTES);
    System.arraycopy(in, start, out, size, 3);
    size += 3;
    whole((int) (to >>> 32));
    whole((int) to);
    copied = at;
  }

  private void text(int start, int from, int length) {
    String before = new String(in, from, length, StandardCharsets.UTF_8);
    String after = texts.apply(before);
    if (after.equals(before)) return;
    flush(start);
    CborWriter w = new CborWriter();
    w.text(after);
    add(w.bytes());
    copied = at;
  }

  private void flush(int to) {
    room(to - copied);
    System.arraycopy(in, copied, out, size, to - copied);
    size += to - copied;
    copied = to;
  }

  private void room(int bytes) {
    if (out.length - size < bytes) out = Arrays.copyOf(out, Math.max(size + bytes, out.length * 2));
  }

  /** A whole number of up to 31 bits, in its shortest form. */
  private void whole(int n) {
    room(5);
    if (n < 24) out[size++] = (byte) n;
    else if (n < 0x100) put(24, n, 1);
    else if (n < 0x10000) put(25, n, 2);
    else put(26, n, 4);
  }

  private void put(int head, int n, int width) {
    out[size++] = (byte) head;
    for (int i = width - 1; i >= 0; i--) out[size++] = (byte) (n >> 8 * i);
  }

  private int octet() {
    return in[at++] & 0xff;
  }

  private void skip(int bytes) {
    at += bytes;
  }

  private int length(int head) {
    return (int) argument(head);
  }

  /** How many bytes follow a head. */
  private static int width(int info) {
    return info < 24 ? 0 : 1 << info - 24;
  }

  private long argument(int head) {
    int info = head & 31;
    if (info < 24) return info;
    long n = 0;
    for (int left = width(info); left > 0; left--) n = n << 8 | octet();
    return n;
  }
}
