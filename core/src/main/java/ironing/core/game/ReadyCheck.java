package ironing.core.game;

import ironing.core.path.GameRoots;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Something that must be so of the game itself before any mod can be blamed.
 *
 * @param what a path in the game's folder, or a range of versions; empty where the kind says all
 * @param says what it means where it is not so, for people; empty for the plain words
 */
public record ReadyCheck(Kind kind, String what, String says) {
  /** What is looked at. */
  public enum Kind {
    /** A file or folder has to be there. */
    HAS,
    /** A file or folder must not be there. */
    LACKS,
    /** The version has to be in a range. */
    VERSION,
    /** The game's own plugins have to be there, all of them. */
    PLUGINS,
    /** A file that the game writes when it is started for the first time. */
    FIRST_RUN;

    /** As a definition has it. */
    public String word() {
      return switch (this) {
        case FIRST_RUN -> "firstRun";
        default -> name().toLowerCase(Locale.ROOT);
      };
    }
  }

  /** A check that does not hold, in words. */
  public record Failed(ReadyCheck check, String expected, String found, String remedy) {}

  /**
   * A game as it lies there.
   *
   * @param roots where the game lies
   * @param version that it tells; empty where it tells none
   * @param missingPlugins of its own plugins those that are not there
   */
  public record Lying(GameRoots roots, Optional<String> version, List<String> missingPlugins) {}

  /** Looks whether it holds; empty where it does. Cost: a look at one file. */
  public Optional<Failed> failed(Lying game) {
    return switch (kind) {
      case HAS ->
          isThere(game)
              ? Optional.empty()
              : failed(
                  what + " is there", "it is not", "Have the game repaired by what installed it.");
      case LACKS ->
          isThere(game)
              ? failed(
                  what + " is not there",
                  "it is",
                  "Take it away, or have the game repaired by what installed it.")
              : Optional.empty();
      case FIRST_RUN ->
          isThere(game)
              ? Optional.empty()
              : failed(
                  what + " is there, which the game writes when it is started",
                  "it is not",
                  "Start the game once without mods, then end it.");
      case VERSION -> {
        VersionRange range = VersionRange.of(what);
        yield game.version.map(ModVersion::of).map(range::contains).orElse(false)
            ? Optional.empty()
            : failed(
                "the version is " + range,
                game.version.map(v -> "it is " + v).orElse("it tells none"),
                "Bring the game into that version.");
      }
      case PLUGINS ->
          game.missingPlugins.isEmpty()
              ? Optional.empty()
              : failed(
                  "the game’s own plugins are all there",
                  String.join(", ", game.missingPlugins)
                      + (game.missingPlugins.size() == 1 ? " is not" : " are not"),
                  "Have the game repaired by what installed it.");
    };
  }

  private Optional<Failed> failed(String expected, String found, String remedy) {
    return Optional.of(new Failed(this, expected, found, remedy));
  }

  private boolean isThere(Lying game) {
    return Files.exists(game.roots.at(what), LinkOption.NOFOLLOW_LINKS);
  }
}
