package ironing.core.game;

import java.util.Locale;

/** How colliding files are combined; what each takes for a cell is in the format of game.yaml. */
public enum CombineWay {
  TEXT,
  TABLE,
  JSON,
  XML,
  YAML,
  INI,
  LIST,
  PROPERTIES;

  /** As game.yaml writes it. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
