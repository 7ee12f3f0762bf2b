package ironing.server.trouble;

import ironing.core.trouble.Fault;

/** A fault in a sentence. */
final class FaultWords {
  private FaultWords() {}

  static String of(Fault f) {
    String at = f.place().isEmpty() ? "" : " at " + f.place();
    return switch (f.kind()) {
      case STOPS -> "The game stops with " + f.name() + at + ".";
      case WARNS -> "The game warns of " + f.name() + at + ".";
      case SAYS -> "The game says: " + f.name();
      case EXITS -> "The game ends with exit code " + f.value() + ".";
      case REPORTS -> f.name() + " is " + f.value() + ".";
      case REPORTS_NOT ->
          f.value().isEmpty()
              ? f.name() + " is not reported."
              : f.name() + " is not " + f.value() + ".";
      case NOT_READ -> "The game does not read " + f.name() + ".";
      case ANY -> "The game does not come to its end.";
      case SLOWER -> "A run takes longer than " + seconds(f.value()) + " s.";
      case LOADS_SLOWER -> "The game loads for longer than " + seconds(f.value()) + " s.";
      case OVER_MEMORY -> "The game has more than " + f.value() + " MiB of memory.";
      case COSTS -> "What " + f.name() + " costs.";
      case WORDS -> f.name();
    };
  }

  private static String seconds(String ms) {
    return String.valueOf(Long.parseLong(ms) / 1000.0).replaceFirst("\\.0$", "");
  }
}
