package ironing.core.yaml;

import java.util.Optional;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;

/**
 * How deep a YAML text is nested. Whoever composes nodes goes into itself for each level, and a
 * hostile text would have it run out of room; the events alone are read level by level.
 *
 * <p>Cost: one pass over the text; a second one over the events where the first says that they may
 * be nested so deep.
 */
public final class YamlDepth {
  private YamlDepth() {}

  /**
   * Where a text goes deeper than some levels; empty where it does not, or is no YAML up to there.
   */
  public static Optional<Mark> deeper(LoadSettings settings, String text, int levels) {
    if (!mayBeDeeper(text, levels)) return Optional.empty();
    int depth = 0;
    try {
      for (Event e : new Parse(settings).parseString(text)) {
        switch (e.getEventId()) {
          case SequenceStart, MappingStart -> {
            if (++depth > levels) return e.getStartMark();
          }
          case SequenceEnd, MappingEnd -> depth--;
          default -> {}
        }
      }
    } catch (YamlEngineException notYaml) {
      // whoever reads it next says why
    }
    return Optional.empty();
  }

  /** Where a text first refers to another place of itself; empty where it does not. */
  public static Optional<Mark> alias(LoadSettings settings, String text) {
    if (text.indexOf('*') < 0) return Optional.empty();
    try {
      for (Event e : new Parse(settings).parseString(text))
        if (e.getEventId() == Event.ID.Alias) return e.getStartMark();
    } catch (YamlEngineException notYaml) {
      // whoever reads it next says why
    }
    return Optional.empty();
  }

  // each level costs a bracket, or a blank, a dash or a question mark at the beginning of a line
  private static boolean mayBeDeeper(String text, int levels) {
    int brackets = 0, indent = 0;
    boolean atStart = true;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c == '\n' || c == '\r') {
        atStart = true;
        indent = 0;
      } else if (atStart && (c == ' ' || c == '-' || c == '?' || c == '\t')) {
        indent++;
      } else {
        atStart = false;
      }
      if (c == '[' || c == '{') brackets++;
      if (brackets + indent > levels) return true;
    }
    return false;
  }
}
