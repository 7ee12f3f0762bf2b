package ironing.core.game;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.path.PathPattern;
import ironing.core.query.JsonPath;
import ironing.core.query.XPathQuery;
import java.util.List;
import java.util.Optional;

/**
 * Plugins that are open text: a manifest that says what the plugin is called and whom it needs, and
 * documents with its records. Immutable.
 *
 * @param is whether a plugin is a folder with a manifest, or one file that is manifest and records
 * @param records where its records are; of several that take a file, each reads it
 * @param patch how a patch's manifest is written; empty where none can be
 * @param number where the game reads a plugin's place in the order; empty where it reads a list
 */
public record DocumentPlugins(
    Is is,
    ManifestForm header,
    List<RecordFiles> records,
    Optional<PatchForm> patch,
    Optional<OrderNumber> number) {

  /** What a plugin is made of. */
  public enum Is {
    FILE,
    FOLDER
  }

  /** What a document is written in. */
  public enum Form {
    JSON,
    YAML,
    XML,
    TABLE,
    INI
  }

  /** Where something stands in a document: as JSONPath, or in XML as XPath. */
  public sealed interface Spot {
    record InJson(JsonPath path) implements Spot {
      @Override
      public String toString() {
        return path.toString();
      }
    }

    record InXml(XPathQuery path) implements Spot {
      @Override
      public String toString() {
        return path.toString();
      }
    }
  }

  /**
   * How a document is read.
   *
   * @param lenient whether JSON may have comments and last commas
   */
  public record Reading(Form as, boolean lenient) {}

  /**
   * What a manifest says and where. Without a name the plugin is called as its folder or file.
   *
   * @param after plugins that are to load before it, without it seeing them
   */
  public record ManifestForm(
      Reading reading,
      Optional<Spot> name,
      Optional<Spot> title,
      Optional<Spot> version,
      Optional<Masters> masters,
      Optional<Spot> after,
      Optional<Spot> before,
      Optional<Spot> clashes) {}

  /**
   * Those that a plugin needs.
   *
   * @param at each of them
   * @param name its name, from there; empty where the place itself holds the name
   */
  public record Masters(Spot at, Optional<Spot> name) {}

  /**
   * Documents that hold records of one type.
   *
   * @param files below the plugin’s folder
   * @param each every record; empty for the rows of a table
   * @param into where a patch writes records of this kind; empty where they are only read
   */
  public record RecordFiles(
      PathPattern files,
      Reading reading,
      Optional<Spot> each,
      Optional<PathPattern> sections,
      IdOf id,
      String type,
      Optional<Removed> removed,
      Optional<String> into) {}

  /** By what a record is known. */
  public sealed interface IdOf {
    /** Values inside of the record, in this order. */
    record At(List<Spot> spots) implements IdOf {}

    /** Columns of a table. */
    record Columns(List<String> names) implements IdOf {}

    /** The key that an object’s member has, or the name of a section. */
    record Key() implements IdOf {}

    /** The file’s name without its ending. */
    record FileName() implements IdOf {}
  }

  /** What says that a record is removed. */
  public record Removed(Spot at, String is) {}

  /**
   * @param at path of the manifest, with {name} for the patch’s name as a path has it
   * @param manifest what stands in it, with {name}, {title} and {master}: a list with one item that
   *     holds {master} has that item for each of them
   */
  public record PatchForm(String at, JsonNode manifest) {}

  /**
   * @param file below the plugin’s folder
   * @param from the number of the first that is not the game’s own
   */
  public record OrderNumber(String file, Reading reading, Spot at, long from, long step) {}

  /** Where a patch's records of a type go; empty where they cannot be written. */
  public Optional<RecordFiles> writes(String type) {
    return records.stream().filter(r -> r.type().equals(type) && r.into().isPresent()).findFirst();
  }

  /** Whether a file below a plugin's folder holds records. */
  public boolean hasRecords(String below) {
    return records.stream().anyMatch(r -> r.files().matches(below));
  }

  /** The types of records, each once. */
  public List<String> types() {
    return records.stream().map(RecordFiles::type).distinct().toList();
  }
}
