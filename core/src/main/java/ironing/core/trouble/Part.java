package ironing.core.trouble;

/**
 * What a search may leave out or keep: a mod, or something in one. Texts that a level does not use
 * are empty.
 *
 * @param path a file of the mod, as it is deployed
 * @param record of a plugin, by key
 * @param field of that record
 * @param above the mod that stands above this one, where that is the part; 0 for others
 */
public record Part(long mod, String path, String record, String field, long above) {
  /** How deep a search looks. */
  public enum Level {
    MODS,
    /** That a mod stands below another one. */
    ORDER,
    FILES,
    RECORDS,
    FIELDS
  }

  public static Part ofMod(long mod) {
    return new Part(mod, "", "", "", 0);
  }

  public static Part ofFile(long mod, String path) {
    return new Part(mod, path, "", "", 0);
  }

  static Part ofOrder(long below, long above) {
    return new Part(below, "", "", "", above);
  }

  Part withRecord(String key) {
    return new Part(mod, path, key, "", 0);
  }

  Part withField(String name) {
    return new Part(mod, path, record, name, 0);
  }
}
