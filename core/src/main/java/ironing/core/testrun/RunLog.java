package ironing.core.testrun;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.path.GameRoots;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The run log of a game, one JSON object a line. Lines that are none are passed over: a crash may
 * cut the last one.
 */
public final class RunLog {
  private static final ObjectMapper JSON = new ObjectMapper();

  /** A value that the game reported, with the file or record that it came from. */
  public record Report(String name, String value, String unit, String from) {}

  /** Something the game warned of or stopped over. Empty texts where it did not say. */
  public record Fault(String code, String text, String path, String plugin, String record) {}

  /**
   * @param read path to SHA-256 of what was read; empty hash where the game did not say
   * @param plugins plugin to slot
   * @param end the code of the end event; empty when the log breaks off
   * @param loading from the start until the game had loaded; empty where the log does not say
   */
  public record Summary(
      Optional<String> gameVersion,
      Map<String, String> read,
      Map<String, Integer> plugins,
      List<Report> reports,
      List<Fault> warnings,
      Optional<Fault> fault,
      Optional<Integer> end,
      Optional<Duration> loading) {}

  private RunLog() {}

  public static Summary summarise(Iterable<String> lines) {
    Optional<String> version = Optional.empty();
    Map<String, String> read = new LinkedHashMap<>();
    Map<String, Integer> plugins = new LinkedHashMap<>();
    List<Report> reports = new ArrayList<>();
    List<Fault> warnings = new ArrayList<>();
    Optional<Fault> fault = Optional.empty();
    Optional<Integer> end = Optional.empty();
    Optional<Instant> started = Optional.empty(), loaded = Optional.empty();
    for (String line : lines) {
      JsonNode e = parse(line);
      switch (e.path("event").asText()) {
        case "start" -> {
          version = Optional.of(e.path("version").asText());
          started = time(e);
        }
        case "loaded" -> loaded = time(e);
        case "read" -> {
          if (e.has("plugin")) plugins.put(e.path("plugin").asText(), e.path("slot").asInt());
          if (e.has("path")) read.put(e.path("path").asText(), e.path("sha256").asText());
        }
        case "report" ->
            reports.add(
                new Report(
                    e.path("name").asText(),
                    e.path("value").asText(),
                    e.path("unit").asText(),
                    e.path("from").asText()));
        case "warning" -> warnings.add(fault(e));
        case "fault" -> fault = Optional.of(fault(e));
        case "end" -> end = Optional.of(e.path("code").asInt());
        default -> {
          // an event of a later version of the format says nothing to this one
        }
      }
    }
    return new Summary(
        version, read, plugins, reports, warnings, fault, end, between(started, loaded));
  }

  // a clock that was put back meanwhile tells nothing
  private static Optional<Duration> between(Optional<Instant> from, Optional<Instant> to) {
    if (from.isEmpty() || to.isEmpty() || to.get().isBefore(from.get())) return Optional.empty();
    return Optional.of(Duration.between(from.get(), to.get()));
  }

  private static Optional<Instant> time(JsonNode e) {
    try {
      return Optional.of(OffsetDateTime.parse(e.path("at").asText()).toInstant());
    } catch (DateTimeParseException noTime) {
      return Optional.empty();
    }
  }

  /** The same of what a game has said since it started last: some start themselves again. */
  public static Summary sinceLastStart(List<String> lines) {
    int from = 0;
    for (int i = 0; i < lines.size(); i++)
      if (parse(lines.get(i)).path("event").asText().equals("start")) from = i;
    return summarise(lines.subList(from, lines.size()));
  }

  private static Fault fault(JsonNode e) {
    return new Fault(
        e.path("code").asText(),
        e.path("text").asText(),
        e.path("path").asText(),
        e.path("plugin").asText(),
        e.path("record").asText());
  }

  /**
   * A log of a game that keeps things beside its folder, which it can only name by full paths: with
   * game paths instead. Lines that name none stay as they are.
   */
  public static String inGame(String log, GameRoots roots) {
    if (roots.places().isEmpty()) return log;
    StringBuilder out = new StringBuilder();
    for (String line : log.split("(?<=\n)")) {
      JsonNode e = parse(line);
      String path = e.path("path").asText(), told = roots.told(path);
      boolean other = e instanceof ObjectNode && !told.equals(path);
      out.append(other ? ((ObjectNode) e).put("path", told) + "\n" : line);
    }
    return out.toString();
  }

  private static JsonNode parse(String line) {
    try {
      return JSON.readTree(line);
    } catch (JsonProcessingException cutShort) {
      return JSON.missingNode();
    }
  }
}
