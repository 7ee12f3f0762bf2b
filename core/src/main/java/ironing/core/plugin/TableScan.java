package ironing.core.plugin;

import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginCodec.Decoded;
import ironing.core.plugin.PluginCodec.HeaderRead;
import ironing.core.plugin.RecordTable.Columns;
import ironing.core.plugin.Shapes.Shape;
import java.io.IOException;
import java.lang.ref.SoftReference;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Looks through a plugin file once and keeps what an index needs, without making a value of
 * anything.
 *
 * <p>It knows only the one encoding that a writer chooses, which is what nearly all files are in.
 * Whatever else it meets, odd or wrong, it leaves to {@link PluginCodec}: that one finds the words
 * for an error, and what it can read is written anew and looked through in that form. So both take
 * the same files.
 *
 * <p>Cost: linear in the bytes; a file is read at some hundred MiB a second.
 */
final class TableScan {
  private static final int MAX_DEPTH = CborReader.MAX_DEPTH - 4;
  private static final int LABEL_BYTES = 200;
  private static final int MAX_FILE_BYTES = 1 << 30;
  private static final int KEPT_BYTES = 64 << 20;

  /** Something that the writer would have written in another way, or not at all. */
  private static final class Odd extends RuntimeException {
    private static final long serialVersionUID = 1;

    Odd() {
      super(null, null, false, false);
    }
  }

  // it carries nothing, and only turns the reader back
  @SuppressWarnings("StaticAssignmentOfThrowable")
  private static final Odd ODD = new Odd();

  private static final class Stack {
    long[] prints = new long[64];
    int top;

    void push(long print) {
      if (top == prints.length) prints = Arrays.copyOf(prints, top * 2);
      prints[top++] = print;
    }

    /** Whether no two from here to the top are the same; sorts them. */
    boolean allDifferent(int from) {
      Arrays.sort(prints, from, top);
      for (int i = from + 1; i < top; i++) if (prints[i] == prints[i - 1]) return false;
      return true;
    }
  }

  /**
   * Room that one file after another is looked through in. Fifteen hundred files in a row would
   * otherwise ask for, and leave behind, several times their size.
   */
  private static final ThreadLocal<SoftReference<TableScan>> IDLE = new ThreadLocal<>();

  private final CharsetDecoder utf8 =
      StandardCharsets.UTF_8
          .newDecoder()
          .onMalformedInput(CodingErrorAction.REPORT)
          .onUnmappableCharacter(CodingErrorAction.REPORT);
  private final Columns rows = new Columns();
  private byte[] buffer = new byte[0];
  private byte[] in;
  private int end;
  private Shapes shapes;
  private final List<String> types = new ArrayList<>();
  private final List<byte[]> typeBytes = new ArrayList<>();
  private final List<String> names = new ArrayList<>();
  private long[] namePrints = new long[16];
  private long[] ownerPrints;
  private int at;
  private int fields, refs, paths, labelBytes, removed, outOfRange;
  // the items of the lists that are open, and the keys of their rows
  private final Stack stack = new Stack(), keys = new Stack();
  private boolean rowOutOfRange;
  // of the map that was read last: the print of the field that its list tells it apart by
  private boolean hadKey;
  private long keyPrint;
  private byte[] folded = new byte[256];

  private TableScan() {
    rows.fieldFrom = new int[1];
    rows.refFrom = new int[1];
    rows.pathFrom = new int[1];
    rows.labelFrom = new int[1];
    rows.fieldName = new short[64];
    rows.fieldPrint = new long[64];
    rows.refOwner = new int[64];
    rows.refId = new int[64];
    rows.path = new long[64];
    rows.label = new byte[256];
    rows.outOfRange = new int[4];
    rows.removed = new int[4];
    size(16);
  }

  private static TableScan idle() {
    SoftReference<TableScan> before = IDLE.get();
    TableScan scan = before == null ? null : before.get();
    if (scan != null) return scan;
    scan = new TableScan();
    IDLE.set(new SoftReference<>(scan));
    return scan;
  }

  static RecordTable read(String name, byte[] bytes, Shapes shapes) {
    return read(name, bytes, bytes.length, shapes);
  }

  private static RecordTable read(String name, byte[] bytes, int end, Shapes shapes) {
    try {
      return idle().run(name, bytes, end, shapes, Optional.empty(), null);
    } catch (Odd e) {
      byte[] whole = Arrays.copyOf(bytes, end);
      Decoded slow = PluginCodec.decode(name, whole);
      return rewritten(name, PluginCodec.encode(slow.plugin()), shapes, slow.warnings());
    }
  }

  static RecordTable read(String name, Path file, Shapes shapes) throws IOException {
    TableScan scan = idle();
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
      long size = channel.size();
      if (size > MAX_FILE_BYTES) throw PluginException.of(name, "it is over 1 GiB");
      if (scan.buffer.length < size) scan.buffer = new byte[(int) size + (int) size / 4];
      ByteBuffer into = ByteBuffer.wrap(scan.buffer, 0, (int) size);
      while (into.hasRemaining() && channel.read(into) >= 0) {}
      byte[] bytes = scan.buffer;
      // one very large file is no reason to hold so much for ever
      if (bytes.length > KEPT_BYTES) scan.buffer = new byte[0];
      return read(name, bytes, into.position(), shapes);
    }
  }

  static RecordTable rewritten(String name, byte[] written, Shapes shapes, List<String> warnings) {
    try {
      return idle().run(name, written, written.length, shapes, Optional.of(written), warnings);
    } catch (Odd e) {
      throw new IllegalStateException(name + " is not read as it was written", e);
    }
  }

  private RecordTable run(
      String name,
      byte[] bytes,
      int length,
      Shapes wished,
      Optional<byte[]> rewritten,
      List<String> told) {
    in = bytes;
    end = length;
    shapes = wished;
    clear();
    if (end > MAX_FILE_BYTES || end == 0) throw ODD;
    HeaderRead read = PluginCodec.readHeader(name, in, end);
    if (!read.deterministic()) throw ODD;
    Header header = read.header();
    List<String> owners = new ArrayList<>(header.masters());
    owners.add(name);
    ownerPrints = owners.stream().mapToLong(o -> Prints.name(PathCase.fold(o))).toArray();
    at = read.end();
    while (at < end) record();
    rows.end = at;
    List<String> warnings = new ArrayList<>();
    if (told != null) warnings.addAll(told);
    else PluginCodec.nextIdWarning(header, highestOwn()).ifPresent(warnings::add);
    return new RecordTable(name, header, warnings, owners, types, names, trimmed(), rewritten);
  }

  private int highestOwn() {
    int last = rows.size - 1;
    return last >= 0 && rows.owner[last] == ownerPrints.length - 1 ? rows.id[last] : 0;
  }

  private void record() {
    int row = rows.size;
    if (row + 2 > rows.fieldFrom.length) grow();
    rows.at[row] = at;
    if (octet() != 0x84) throw ODD;
    int type = type();
    long owner = whole(), id = whole();
    if (owner >= ownerPrints.length || id < 1 || id > Plugin.MAX_ID) throw ODD;
    rows.owner[row] = (int) owner;
    rows.id[row] = (int) id;
    rows.type[row] = (short) type;
    // a file that is not sorted, or has a record twice, is for the other reader
    if (row > 0
        && (owner < rows.owner[row - 1] || owner == rows.owner[row - 1] && id <= rows.id[row - 1]))
      throw ODD;
    rowOutOfRange = false;
    if (at < end && in[at] == (byte) 0xf6) {
      at++;
      rows.print[row] = Prints.NULL;
      if (removed == rows.removed.length) rows.removed = Arrays.copyOf(rows.removed, removed * 2);
      rows.removed[removed++] = row;
    } else {
      rows.print[row] = fields(shapes.of(types.get(type)));
    }
    if (rowOutOfRange) {
      if (outOfRange == rows.outOfRange.length)
        rows.outOfRange = Arrays.copyOf(rows.outOfRange, outOfRange * 2);
      rows.outOfRange[outOfRange++] = row;
    }
    rows.size = row + 1;
    rows.fieldFrom[row + 1] = fields;
    rows.refFrom[row + 1] = refs;
    rows.pathFrom[row + 1] = paths;
    rows.labelFrom[row + 1] = labelBytes;
  }

  private int type() {
    int length = octet() - 0x60;
    if (length == 0x18) {
      length = octet();
      if (length < 24) throw ODD;
    } else if (length < 0 || length > 23) throw ODD;
    if (length < 1 || length > 32 || length > end - at) throw ODD;
    int from = at;
    at += length;
    for (int i = 0; i < typeBytes.size(); i++) {
      byte[] t = typeBytes.get(i);
      if (t.length == length && Arrays.equals(t, 0, length, in, from, from + length)) return i;
    }
    for (int i = from; i < at; i++) {
      int c = in[i];
      if (!(c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '-')) throw ODD;
    }
    if (types.size() > Short.MAX_VALUE) throw ODD;
    typeBytes.add(Arrays.copyOfRange(in, from, at));
    types.add(new String(in, from, length, StandardCharsets.US_ASCII));
    return types.size() - 1;
  }

  /** The map of a record's fields. */
  private long fields(Shape shape) {
    int count = count(octet(), 5);
    long print = 0;
    int keyBefore = -1;
    for (int i = 0; i < count; i++) {
      int key = at;
      long name = name();
      if (keyBefore >= 0 && !ascending(keyBefore, key)) throw ODD;
      keyBefore = key;
      int nameLength = nameLength(key);
      int number = number(name, at - nameLength, nameLength);
      int valueAt = at;
      long value = value(shape.child(name), 2);
      if (shape.keyed && name == shape.keyName) label(valueAt);
      if (fields == rows.fieldPrint.length) {
        rows.fieldPrint = Arrays.copyOf(rows.fieldPrint, fields * 2);
        rows.fieldName = Arrays.copyOf(rows.fieldName, fields * 2);
      }
      rows.fieldName[fields] = (short) number;
      rows.fieldPrint[fields++] = value;
      print += Prints.entry(name, value);
    }
    return print;
  }

  private void label(int from) {
    int major = (in[from] & 0xff) >> 5, info = in[from] & 31;
    if (major != 3) return;
    int head = info < 24 ? 1 : 1 + (1 << info - 24);
    int length = Math.min(at - from - head, LABEL_BYTES);
    // no half of a character
    while (length > 0 && length < at - from - head && (in[from + head + length] & 0xc0) == 0x80)
      length--;
    if (labelBytes + length > rows.label.length)
      rows.label = Arrays.copyOf(rows.label, (labelBytes + length) * 2);
    System.arraycopy(in, from + head, rows.label, labelBytes, length);
    labelBytes += length;
  }

  private int number(long name, int from, int length) {
    for (int i = 0; i < names.size(); i++) if (namePrints[i] == name) return i;
    if (names.size() > Short.MAX_VALUE) throw ODD;
    if (names.size() == namePrints.length)
      namePrints = Arrays.copyOf(namePrints, namePrints.length * 2);
    namePrints[names.size()] = name;
    names.add(new String(in, from, length, StandardCharsets.UTF_8));
    return names.size() - 1;
  }

  private long value(Shape shape, int depth) {
    if (depth > MAX_DEPTH) throw ODD;
    int head = octet();
    switch (head >> 5) {
      case 0:
        {
          long n = argument(head & 31);
          if (n < 0) throw ODD;
          check(shape, (double) n);
          return Prints.number(n);
        }
      case 1:
        {
          long n = argument(head & 31);
          if (n < 0) throw ODD;
          check(shape, (double) (-1 - n));
          return Prints.number(-1 - n);
        }
      case 2:
        {
          int length = length(head);
          at += length;
          return Prints.binary(in, at - length, length);
        }
      case 3:
        {
          int length = text(head);
          if (shape.kind == Kind.PATH) return path(at - length, length);
          return Prints.text(in, at - length, length);
        }
      case 4:
        return list(shape, head, depth);
      case 5:
        return map(shape, head, depth);
      case 6:
        return ref(head);
      default:
        return simple(shape, head);
    }
  }

  private long simple(Shape shape, int head) {
    switch (head) {
      case 0xf4:
        return Prints.FALSE;
      case 0xf5:
        return Prints.TRUE;
      case 0xf6:
        return Prints.NULL;
      case 0xf9:
        return real(shape, CborReader.halfToDouble(bits(2)), 2);
      case 0xfa:
        return real(shape, Float.intBitsToFloat((int) bits(4)), 4);
      case 0xfb:
        return real(shape, Double.longBitsToDouble(bits(8)), 8);
      default:
        throw ODD;
    }
  }

  private long real(Shape shape, double d, int width) {
    if (Double.isNaN(d) || Double.isInfinite(d) || CborWriter.widthOf(d) != width) throw ODD;
    check(shape, d);
    return Prints.number(d);
  }

  private void check(Shape shape, double number) {
    if (shape.bounded && shape.kind == Kind.NUMBER && !shape.field.admits(number))
      rowOutOfRange = true;
  }

  private long list(Shape shape, int head, int depth) {
    int count = count(head, 4);
    Shape item = shape.item();
    if (shape.kind != Kind.SET && shape.kind != Kind.ROWS) {
      long print = Prints.listStart();
      for (int i = 0; i < count; i++) print = Prints.item(print, value(item, depth + 1));
      return print;
    }
    boolean keyed = shape.kind == Kind.ROWS && item.keyed;
    int from = stack.top, keysFrom = keys.top;
    long inOrder = Prints.listStart();
    for (int i = 0; i < count; i++) {
      hadKey = false;
      long print = value(item, depth + 1);
      if (keyed && hadKey) keys.push(keyPrint);
      stack.push(print);
      inOrder = Prints.item(inOrder, print);
    }
    boolean apart = keyed && keys.top - keysFrom == count && keys.allDifferent(keysFrom);
    hadKey = false;
    // the order of a set, and of rows that have keys, means nothing
    long print =
        shape.kind == Kind.SET || apart ? Prints.set(stack.prints, from, stack.top) : inOrder;
    stack.top = from;
    keys.top = keysFrom;
    return print;
  }

  private long map(Shape shape, int head, int depth) {
    int count = count(head, 5);
    long print = 0, key = 0;
    boolean had = false;
    int keyBefore = -1;
    for (int i = 0; i < count; i++) {
      int keyAt = at;
      long name = name();
      if (keyBefore >= 0 && !ascending(keyBefore, keyAt)) throw ODD;
      keyBefore = keyAt;
      long value = value(shape.child(name), depth + 1);
      print += Prints.entry(name, value);
      if (shape.keyed && name == shape.keyName) {
        had = true;
        key = value;
      }
    }
    hadKey = had;
    keyPrint = key;
    // an empty map is not the number 0
    return Prints.entry(count, print);
  }

  private long ref(int head) {
    if (head != 0xd8 || octet() != 39 || octet() != 0x82) throw ODD;
    long owner = whole(), id = whole();
    if (owner >= ownerPrints.length || id < 1 || id > Plugin.MAX_ID) throw ODD;
    if (refs == rows.refId.length) {
      rows.refId = Arrays.copyOf(rows.refId, refs * 2);
      rows.refOwner = Arrays.copyOf(rows.refOwner, refs * 2);
    }
    rows.refOwner[refs] = (int) owner;
    rows.refId[refs++] = (int) id;
    return Prints.ref(ownerPrints[(int) owner], id);
  }

  private long path(int from, int length) {
    long print;
    if (!Prints.ascii(in, from, length)) {
      String path = new String(in, from, length, StandardCharsets.UTF_8);
      byte[] key = shapes.pathCase().key(path).getBytes(StandardCharsets.UTF_8);
      print = Prints.path(key, 0, key.length);
    } else if (shapes.pathCase() == PathCase.INSENSITIVE) {
      if (folded.length < length) folded = new byte[length * 2];
      for (int i = 0; i < length; i++) {
        byte c = in[from + i];
        folded[i] = c >= 'A' && c <= 'Z' ? (byte) (c + 32) : c;
      }
      print = Prints.path(folded, 0, length);
    } else {
      print = Prints.path(in, from, length);
    }
    if (paths == rows.path.length) rows.path = Arrays.copyOf(rows.path, paths * 2);
    rows.path[paths++] = print;
    return print;
  }

  private long name() {
    int head = octet();
    if (head >> 5 != 3) throw ODD;
    int length = text(head);
    return Prints.name(in, at - length, length);
  }

  private int nameLength(int keyAt) {
    int info = in[keyAt] & 31;
    return at - keyAt - (info < 24 ? 1 : 1 + (1 << info - 24));
  }

  /** Whether one encoded key comes before another, both ending where the next thing begins. */
  private boolean ascending(int a, int b) {
    // heads differ when lengths do, so no key is the beginning of another
    for (; ; a++, b++) {
      if (b >= end) return false;
      int order = (in[a] & 0xff) - (in[b] & 0xff);
      if (order != 0) return order < 0;
      if (b + 1 >= at) return false;
    }
  }

  /** Passes over a text and gives its length. */
  private int text(int head) {
    int length = length(head);
    if (length > CborReader.MAX_TEXT_BYTES) throw ODD;
    if (!Prints.ascii(in, at, length)) {
      try {
        utf8.decode(ByteBuffer.wrap(in, at, length));
      } catch (CharacterCodingException e) {
        throw ODD;
      }
    }
    at += length;
    return length;
  }

  private int length(int head) {
    long n = argument(head & 31);
    if (n < 0 || n > end - at) throw ODD;
    return (int) n;
  }

  private int count(int head, int major) {
    if (head >> 5 != major) throw ODD;
    long n = argument(head & 31);
    if (n < 0 || n > end - at) throw ODD;
    return (int) n;
  }

  private long whole() {
    int head = octet();
    if (head >> 5 != 0) throw ODD;
    long n = argument(head & 31);
    if (n < 0) throw ODD;
    return n;
  }

  private long argument(int info) {
    if (info < 24) return info;
    long n;
    switch (info) {
      case 24:
        n = octet();
        if (n < 24) throw ODD;
        return n;
      case 25:
        n = bits(2);
        if (n < 0x100) throw ODD;
        return n;
      case 26:
        n = bits(4);
        if (n < 0x10000) throw ODD;
        return n;
      case 27:
        n = bits(8);
        if (n >= 0 && n < 0x100000000L) throw ODD;
        return n;
      default:
        throw ODD;
    }
  }

  private long bits(int width) {
    if (end - at < width) throw ODD;
    long v = 0;
    for (int i = 0; i < width; i++) v = v << 8 | in[at++] & 0xff;
    return v;
  }

  private int octet() {
    if (at >= end) throw ODD;
    return in[at++] & 0xff;
  }

  private void clear() {
    rows.size = 0;
    fields = refs = paths = labelBytes = removed = outOfRange = 0;
    stack.top = keys.top = 0;
    types.clear();
    typeBytes.clear();
    names.clear();
  }

  private void grow() {
    size(rows.owner.length * 2);
  }

  private void size(int n) {
    rows.owner = rows.owner == null ? new int[n] : Arrays.copyOf(rows.owner, n);
    rows.id = rows.id == null ? new int[n] : Arrays.copyOf(rows.id, n);
    rows.type = rows.type == null ? new short[n] : Arrays.copyOf(rows.type, n);
    rows.at = rows.at == null ? new int[n] : Arrays.copyOf(rows.at, n);
    rows.print = rows.print == null ? new long[n] : Arrays.copyOf(rows.print, n);
    rows.fieldFrom = Arrays.copyOf(rows.fieldFrom, n + 1);
    rows.refFrom = Arrays.copyOf(rows.refFrom, n + 1);
    rows.pathFrom = Arrays.copyOf(rows.pathFrom, n + 1);
    rows.labelFrom = Arrays.copyOf(rows.labelFrom, n + 1);
  }

  private Columns trimmed() {
    int n = rows.size;
    Columns c = new Columns();
    c.size = n;
    c.end = rows.end;
    c.owner = Arrays.copyOf(rows.owner, n);
    c.id = Arrays.copyOf(rows.id, n);
    c.type = Arrays.copyOf(rows.type, n);
    c.at = Arrays.copyOf(rows.at, n);
    c.print = Arrays.copyOf(rows.print, n);
    c.fieldFrom = Arrays.copyOf(rows.fieldFrom, n + 1);
    c.refFrom = Arrays.copyOf(rows.refFrom, n + 1);
    c.pathFrom = Arrays.copyOf(rows.pathFrom, n + 1);
    c.labelFrom = Arrays.copyOf(rows.labelFrom, n + 1);
    c.fieldName = Arrays.copyOf(rows.fieldName, fields);
    c.fieldPrint = Arrays.copyOf(rows.fieldPrint, fields);
    c.refOwner = Arrays.copyOf(rows.refOwner, refs);
    c.refId = Arrays.copyOf(rows.refId, refs);
    c.path = Arrays.copyOf(rows.path, paths);
    c.label = Arrays.copyOf(rows.label, labelBytes);
    c.outOfRange = Arrays.copyOf(rows.outOfRange, outOfRange);
    c.removed = Arrays.copyOf(rows.removed, removed);
    return c;
  }
}
