package ironing.server.mends;

import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Map;

/**
 * What went into a mend when it was made, to know later whether making it anew gives another.
 *
 * @param sha256 of its plugin
 * @param masters in the order in which they loaded
 * @param records by key, what the outcome was made of; see {@code Collisions.madeOf}
 */
record MadeOf(
    @MayBeAbsent String sha256,
    @MayBeAbsent List<String> masters,
    @MayBeAbsent Map<String, String> records) {
  MadeOf {
    sha256 = sha256 == null ? "" : sha256;
    masters = masters == null ? List.of() : List.copyOf(masters);
    records = records == null ? Map.of() : Map.copyOf(records);
  }

  /** Plugin to SHA-256, and the records in it. */
  record Ingredients(Map<String, String> plugins, @MayBeAbsent List<String> records) {
    Ingredients {
      records = records == null ? List.of() : records;
    }
  }
}
