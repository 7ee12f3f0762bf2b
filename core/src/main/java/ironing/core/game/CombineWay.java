package ironing.core.game;

import java.util.Locale;

/** How colliding files are combined; what each takes for a cell is in the format of game.yaml. */
public enum CombineWay {
  TEXT("text"),
  TABLE("a table"),
  JSON("JSON"),
  XML("XML"),
  YAML("YAML"),
  INI("INI"),
  LIST("a list"),
  PROPERTIES("properties");

  private final String title;

  CombineWay(String title) {
    this.title = title;
  }

  /** As people call it, in the middle of a sentence. */
  public String title() {
    return title;
  }

  /** As game.yaml writes it. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
