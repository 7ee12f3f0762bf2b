package ironing.core.documents;

import ironing.core.plugin.Value;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * A record as it stands in a document.
 *
 * @param id what it is known by, in one or more parts
 * @param fields empty where the document says that the record is removed
 * @param where it stands: the file's path below the plugin and the way in it
 */
record FoundRecord(
    String type, List<String> id, Optional<Value.Fields> fields, Supplier<String> where) {

  String place() {
    return where.get();
  }
}
