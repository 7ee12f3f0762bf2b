package ironing.core.trouble;

/**
 * What a search may leave out or keep: a mod, or something in one. Texts that a level does not use
 * are empty.
 *
 * @param path a file of the mod, as it is deployed
 * @param record of a plugin, by key
 * @param field of that record
 */
public record Part(long mod, String path, String record, String field) {
  /** How deep a search looks. */
  public enum Level {
    MODS,
    FILES,
    RECORDS,
    FIELDS
  }

  public static Part ofMod(long mod) {
    return new Part(mod, "", "", "");
  }

  public static Part ofFile(long mod, String path) {
    return new Part(mod, path, "", "");
  }

  Part withRecord(String key) {
    return new Part(mod, path, key, "");
  }

  Part withField(String name) {
    return new Part(mod, path, record, name);
  }
}
