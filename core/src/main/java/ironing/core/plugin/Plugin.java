package ironing.core.plugin;

import ironing.core.path.PathCase;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A plugin in memory. Records refer by names, never by indexes, so that they can be compared across
 * plugins. Immutable.
 *
 * @param name the file name, which is also the owner of its own records
 * @param records in file order
 */
public record Plugin(String name, Header header, List<Record> records) {
  public static final String FORMAT = "ironing/plugin@1";
  public static final int DEFAULT_STAGE = 5;
  public static final int MAX_ID = 16_777_215;

  public Plugin {
    records = List.copyOf(records);
  }

  /**
   * What a plugin says of itself.
   *
   * @param stage 0 to 9: all of a lower stage load before all of a higher one
   * @param other header keys this version does not know; they are written back as they were
   */
  public record Header(
      int stage,
      List<String> masters,
      int nextId,
      Optional<String> title,
      Optional<String> author,
      Optional<String> version,
      Optional<String> about,
      Optional<String> game,
      List<String> packs,
      Map<String, Value> other) {
    public Header {
      masters = List.copyOf(masters);
      packs = List.copyOf(packs);
      other = Collections.unmodifiableMap(new LinkedHashMap<>(other));
    }

    /** The same with a title, or none. */
    public Header titled(Optional<String> words) {
      return new Header(stage, masters, nextId, words, author, version, about, game, packs, other);
    }

    Header withNextId(int next) {
      return new Header(stage, masters, next, title, author, version, about, game, packs, other);
    }

    public static Header of(int stage, List<String> masters, int nextId) {
      return new Header(
          stage,
          masters,
          nextId,
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          List.of(),
          Map.of());
    }
  }

  /** One version of a record; without fields it says that the record is removed. */
  public record Record(String type, Value.Ref key, Optional<Value.Fields> fields) {}

  /**
   * The order in which a writer puts records: by owner as the header lists them, own last, then id;
   * where they are known by names, by their keys.
   */
  public List<Record> inWritingOrder() {
    List<Record> sorted = new ArrayList<>(records);
    if (records.stream().anyMatch(r -> r.key().isNamed())) {
      sorted.sort(Comparator.comparing(r -> r.key().owner()));
      return sorted;
    }
    OwnerIndex owners = new OwnerIndex(this);
    sorted.sort(
        Comparator.<Record>comparingInt(r -> owners.of(r.key()))
            .thenComparingInt(r -> r.key().id()));
    return sorted;
  }

  /** The names of this plugin's masters and itself, numbered as records in the file number them. */
  static final class OwnerIndex {
    private final Plugin plugin;
    private final Map<String, Integer> folded = new HashMap<>();
    // names are nearly always written alike: looking one up need not fold it
    private final Map<String, Integer> written = new HashMap<>();

    OwnerIndex(Plugin p) {
      plugin = p;
      for (String m : p.header().masters()) folded.put(PathCase.fold(m), folded.size());
      folded.put(PathCase.fold(p.name()), folded.size());
    }

    /**
     * @throws PluginException when the record's owner is no master
     */
    int of(Value.Ref key) {
      Integer i = written.get(key.owner());
      if (i != null) return i;
      i = folded.get(PathCase.fold(key.owner()));
      if (i == null)
        throw PluginException.of(
            plugin.name(),
            "it refers to " + key + " without having " + key.owner() + " as a master");
      written.put(key.owner(), i);
      return i;
    }
  }
}
