package ironing.core.plugin;

import ironing.core.path.PathCase;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A value inside a record. Immutable; equality is exact, kinds included (1 is not 1.0 here). */
public sealed interface Value {
  record Null() implements Value {}

  record Truth(boolean value) implements Value {}

  record Int(long value) implements Value {}

  record Real(double value) implements Value {
    public Real {
      if (Double.isNaN(value) || Double.isInfinite(value))
        throw new IllegalArgumentException("a number of a plugin is finite, not " + value);
    }
  }

  record Text(String value) implements Value {}

  /**
   * A record's key: its owner's file name and its id there. Names compare without case.
   *
   * <p>Where records are known by names, {@code owner} is the whole key and {@code id} is {@link
   * #NAMED}: nobody owns a name. Such keys compare exactly.
   */
  record Ref(String owner, int id) implements Value {
    /** The id of a key that is a name. */
    public static final int NAMED = 0;

    /** Stands before each name in a key; no id that is a number begins so. */
    private static final char BEFORE_NAME = '=';

    @Override
    public boolean equals(Object o) {
      return o instanceof Ref r
          && r.id == id
          && (r.owner.equals(owner)
              || id != NAMED && PathCase.fold(r.owner).equals(PathCase.fold(owner)));
    }

    @Override
    public int hashCode() {
      return id == NAMED ? owner.hashCode() : 31 * PathCase.fold(owner).hashCode() + id;
    }

    /** The key of a record that is known by its type and one or more names. */
    public static Ref named(String type, List<String> names) {
      StringBuilder key = new StringBuilder(type).append('/');
      for (String name : names) {
        key.append(BEFORE_NAME);
        for (int i = 0; i < name.length(); i++) {
          char c = name.charAt(i);
          boolean plain = c != '%' && c != '/' && c != '\\' && c != BEFORE_NAME && c >= 0x20;
          if (plain) key.append(c);
          else key.append(String.format("%%%02X", (int) c));
        }
      }
      return new Ref(key.toString(), NAMED);
    }

    public boolean isNamed() {
      return id == NAMED;
    }

    /** The names that the record is known by, without its type. */
    public List<String> names() {
      String names = owner.substring(owner.indexOf('/') + 2);
      return Arrays.stream(names.split(String.valueOf(BEFORE_NAME), -1)).map(Ref::read).toList();
    }

    private static String read(String name) {
      StringBuilder out = new StringBuilder();
      for (int i = 0; i < name.length(); i++) {
        boolean escaped =
            name.charAt(i) == '%'
                && i + 3 <= name.length()
                && name.substring(i + 1, i + 3).matches("[0-9A-F]{2}");
        out.append(
            escaped ? (char) Integer.parseInt(name.substring(i + 1, i + 3), 16) : name.charAt(i));
        if (escaped) i += 2;
      }
      return out.toString();
    }

    /** A key as people and files write it; empty for anything else. */
    public static Optional<Ref> parse(String key) {
      int slash = key.lastIndexOf('/');
      if (slash > 0 && slash + 1 < key.length() && key.charAt(slash + 1) == BEFORE_NAME)
        return Optional.of(new Ref(key, NAMED));
      if (slash < 1 || !key.substring(slash + 1).matches("[1-9][0-9]{0,7}"))
        return Optional.empty();
      int id = Integer.parseInt(key.substring(slash + 1));
      return id > Plugin.MAX_ID
          ? Optional.empty()
          : Optional.of(new Ref(key.substring(0, slash), id));
    }

    /** As people and files write it: {@code Skerry.plug/420}, or {@code bell/=great}. */
    @Override
    public String toString() {
      return id == NAMED ? owner : owner + "/" + id;
    }
  }

  record Bytes(byte[] value) implements Value {
    public Bytes {
      value = value.clone();
    }

    @Override
    public byte[] value() {
      return value.clone();
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Bytes b && Arrays.equals(value, b.value);
    }

    @Override
    public int hashCode() {
      return Arrays.hashCode(value);
    }
  }

  record Array(List<Value> items) implements Value {
    public Array {
      items = List.copyOf(items);
    }
  }

  record Fields(Map<String, Value> map) implements Value {
    public Fields {
      map = Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }
  }

  Null NULL = new Null();
}
