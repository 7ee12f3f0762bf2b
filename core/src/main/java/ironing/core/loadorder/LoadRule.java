package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.util.List;

/**
 * A wish about plugins: that some load after or before others, or that they go together or do not.
 *
 * @param key stands for the rule wherever the user speaks of it; the same as long as it says the
 *     same
 * @param plugin whom it is about
 * @param other whom it names beside
 * @param reason in words
 * @param from who said it; of two rules about groups never the same
 */
public record LoadRule(
    String key, Kind kind, Who plugin, Who other, String reason, String from, Strength strength) {

  /** What it asks for. */
  public enum Kind {
    AFTER,
    BEFORE,
    /** Only with: the other one must be on. */
    NEEDS,
    /** Not with. */
    CLASHES;

    public boolean isOfOrder() {
      return this == AFTER || this == BEFORE;
    }
  }

  /** What gives way to what: the later one to the earlier. */
  public enum Strength {
    /** Of the file or of the game: nobody can take it back. */
    FIXED,
    USER,
    CARD,
    LIST,
    BAND
  }

  /** How somebody is named. */
  public enum By {
    NAME,
    /** A pattern over file names, in which {@code *} and {@code ?} stand for any letters. */
    PATTERN,
    /** A tag of the mod that brings it. */
    TAG
  }

  /** One plugin, or a group of them. Names compare without case. */
  public record Who(By by, String text) {
    public static Who named(String name) {
      return new Who(By.NAME, name);
    }

    public boolean isGroup() {
      return by != By.NAME;
    }

    /** Those of an order whom it names. */
    public List<Entry> among(LoadOrder order, PluginFacts facts) {
      return switch (by) {
        case NAME -> order.find(text).stream().toList();
        case PATTERN -> {
          PathPattern pattern = PathPattern.of(text, PathCase.INSENSITIVE);
          yield order.entries().stream().filter(e -> pattern.matches(e.name())).toList();
        }
        case TAG -> {
          String tag = PathCase.fold(text);
          yield order.entries().stream()
              .filter(
                  e -> facts.tags(e.plugin()).stream().anyMatch(t -> PathCase.fold(t).equals(tag)))
              .toList();
        }
      };
    }

    /** In words. */
    @Override
    public String toString() {
      return by == By.TAG ? "plugins tagged " + text : text;
    }
  }

  /** The same rule the other way about. */
  public LoadRule reversed() {
    Kind turned =
        switch (kind) {
          case AFTER -> Kind.BEFORE;
          case BEFORE -> Kind.AFTER;
          case NEEDS, CLASHES -> kind;
        };
    return new LoadRule(
        key, turned, plugin, other, "turned about by you; it said: " + reason, from, strength);
  }
}
