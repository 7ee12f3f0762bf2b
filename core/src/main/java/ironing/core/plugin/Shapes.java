package ironing.core.plugin;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * How the records of a game compare, made ready for reading millions of them.
 *
 * <p>Threads: immutable.
 */
public final class Shapes {
  private final Map<String, RecordType> types;
  private final PathCase pathCase;
  // tables are looked up by this, one for each plugin: the definition is not gone through each time
  private final int hash;
  private final Map<String, Shape> byType = new HashMap<>();

  private Shapes(Map<String, RecordType> types, PathCase pathCase) {
    this.types = types;
    this.pathCase = pathCase;
    this.hash = types.hashCode();
    types.forEach((name, type) -> byType.put(name, Shape.of(type.asField(), type.label())));
  }

  public static Shapes of(GameDefinition game) {
    return new Shapes(game.records(), game.pathCase());
  }

  PathCase pathCase() {
    return pathCase;
  }

  /** Of a record's fields; one that compares exactly where the type is not described. */
  Shape of(String type) {
    return byType.getOrDefault(type, Shape.WHOLE);
  }

  /** The print that a path in a record has, to look for it among others. */
  public long path(String path) {
    byte[] key = pathCase.key(path).getBytes(StandardCharsets.UTF_8);
    return Prints.path(key, 0, key.length);
  }

  /** Two of them read every plugin alike. */
  @Override
  public boolean equals(Object o) {
    return o instanceof Shapes s && s.types.equals(types) && s.pathCase == pathCase;
  }

  @Override
  public int hashCode() {
    return hash;
  }

  /** How one value compares. */
  static final class Shape {
    static final Shape WHOLE = of(Field.WHOLE, Optional.empty());

    final Kind kind;
    final Field field;
    final boolean bounded;

    /** The print of the name that a list's rows are told apart by, or a record is known by. */
    final long keyName;

    final boolean keyed;

    /** Whether some text in it, at any depth, may hold ids. */
    final boolean holdsIds;

    /** What a list holds; null for anything. */
    private final Shape of;

    private final long[] names;
    private final Shape[] children;

    private Shape(Field field, Optional<String> key, Shape of) {
      this.kind = field.kind();
      this.field = field;
      this.bounded = field.min().isPresent() || field.max().isPresent();
      this.keyed = key.isPresent();
      this.keyName = key.map(Prints::name).orElse(0L);
      this.of = of;
      this.names = field.fields().keySet().stream().mapToLong(Prints::name).toArray();
      this.children =
          field.fields().values().stream().map(f -> of(f, Optional.empty())).toArray(Shape[]::new);
      this.holdsIds =
          field.holdsIds()
              || of != null && of.holdsIds
              || Arrays.stream(children).anyMatch(c -> c.holdsIds);
    }

    private static Shape of(Field field, Optional<String> key) {
      Shape of = null;
      // a row compares like a map with the row's fields, whatever else the field says
      if (field.kind() == Kind.ROWS) of = of(field.row(), field.key());
      else if (field.of().isPresent()) of = of(field.of().get(), Optional.empty());
      return new Shape(field, key, of);
    }

    Shape item() {
      return of == null ? WHOLE : of;
    }

    /** What is found under a name inside a map. */
    Shape child(long name) {
      for (int i = 0; i < names.length; i++) if (names[i] == name) return children[i];
      return WHOLE;
    }
  }
}
