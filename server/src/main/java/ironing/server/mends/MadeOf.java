package ironing.server.mends;

import ironing.core.mends.Contest;
import ironing.core.mends.FileSide;
import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * What went into a mend when it was made, to know later whether making it anew gives another.
 *
 * @param sha256 of its plugin
 * @param masters in the order in which they loaded
 * @param records by key, what the outcome was made of; see {@code Collisions.madeOf}
 * @param files of combined files, what each was made of
 */
record MadeOf(
    @MayBeAbsent String sha256,
    @MayBeAbsent List<String> masters,
    @MayBeAbsent Map<String, String> records,
    @MayBeAbsent List<MadeFile> files) {
  MadeOf(String sha256, List<String> masters, Map<String, String> records) {
    this(sha256, masters, records, null);
  }

  MadeOf {
    files = files == null ? List.of() : List.copyOf(files);
    sha256 = sha256 == null ? "" : sha256;
    masters = masters == null ? List.of() : List.copyOf(masters);
    records = records == null ? Map.of() : Map.copyOf(records);
  }

  /**
   * A version of a file that went in.
   *
   * @param id of the mod's card; empty for the game
   */
  record Version(String id, String sha256) {}

  /**
   * One combined file.
   *
   * @param sha256 of what came out
   * @param contenders in layer order
   * @param choices of the user, by place, as text
   */
  record MadeFile(
      String path,
      String sha256,
      Version base,
      List<Version> contenders,
      Map<String, String> choices) {
    static MadeFile of(Contest c, String sha256) {
      return new MadeFile(
          c.path(),
          sha256,
          version(c.base()),
          c.contenders().stream().map(MadeFile::version).toList(),
          choices(c));
    }

    private static Version version(FileSide s) {
      return new Version(s.id(), s.sha256());
    }

    static Map<String, String> choices(Contest c) {
      Map<String, String> choices = new TreeMap<>();
      c.choices().forEach((place, choice) -> choices.put(place, choice.toString()));
      return choices;
    }
  }

  /** Plugin to SHA-256, and the records in it. */
  record Ingredients(Map<String, String> plugins, @MayBeAbsent List<String> records) {
    Ingredients {
      records = records == null ? List.of() : records;
    }
  }
}
