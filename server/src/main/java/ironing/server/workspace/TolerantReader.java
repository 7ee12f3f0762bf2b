package ironing.server.workspace;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.layers.PlacementRule;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.RuleBook;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Arrangement.Section;
import ironing.core.records.Decided;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaceMapper.ModRow;
import ironing.server.workspace.OpenWorkspaceMapper.ProfileRow;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Reads what is written down of one workspace, and goes on where something of it cannot be read: a
 * card gives way to what the archive's name says, any other part to nothing. The log keeps the
 * text.
 *
 * <p>Threads: one workspace, one thread at a time.
 */
final class TolerantReader {
  static final String ARRANGEMENT = "arrangement",
      RULES = "rules",
      LOAD_RULES = "load-rules",
      CARD = "card-";
  private static final Logger LOG = LoggerFactory.getLogger(TolerantReader.class);
  private static final int LONGEST_REASON = 300;
  private final Json json;
  private final List<Unreadable> unreadable = new ArrayList<>();
  private final Map<String, JsonNode> unreadParts = new LinkedHashMap<>();
  private final List<JsonNode> unreadRules = new ArrayList<>();

  TolerantReader(Json json) {
    this.json = json;
  }

  List<Unreadable> unreadable() {
    return List.copyOf(unreadable);
  }

  private <T> T read(
      String key, String what, Long mod, Object from, TypeReference<T> type, T other) {
    try {
      return from instanceof JsonNode n ? json.convert(n, type) : json.read(from.toString(), type);
    } catch (IllegalStateException e) {
      String because = String.valueOf(e.getCause() == null ? e : e.getCause().getMessage());
      because = because.lines().findFirst().orElse("");
      if (because.length() > LONGEST_REASON) because = because.substring(0, LONGEST_REASON) + " …";
      synchronized (unreadable) {
        unreadable.add(new Unreadable(key, what, mod, because));
      }
      LOG.warn("{} cannot be read: {}: {}", what, because, from);
      return other;
    }
  }

  ModCard card(ModRow m) {
    String name = m.archiveName().isEmpty() ? "Mod " + m.id() : m.archiveName();
    return read(
        CARD + m.id(),
        "The card of “" + name + "”",
        m.id(),
        m.card(),
        new TypeReference<ModCard>() {},
        ModCard.inferredFrom(name));
  }

  List<PlacementRule> rules(String text) {
    List<PlacementRule> rules = new ArrayList<>();
    JsonNode all =
        read(RULES, "The rules of placement", null, text, new TypeReference<>() {}, null);
    if (all == null) return rules;
    for (JsonNode n : all) {
      PlacementRule r =
          read(RULES, "A rule of placement", null, n, new TypeReference<PlacementRule>() {}, null);
      if (r != null) rules.add(r);
      else unreadRules.add(n);
    }
    return rules;
  }

  RuleBook loadRules(String text) {
    return read(
        LOAD_RULES,
        "The rules of the load order",
        null,
        text,
        new TypeReference<RuleBook>() {},
        RuleBook.EMPTY);
  }

  /** Part by part: what cannot be read is not spoken of. */
  Parts parts(ProfileRow profile) {
    try {
      // nearly always, and quicker than part by part
      Parts all = json.read(profile.arrangement(), Parts.class);
      if (all != null) return all.ofProfile();
    } catch (IllegalStateException e) {
      // it is told below, with the part that is wrong
    }
    return partByPart(profile);
  }

  private Parts partByPart(ProfileRow profile) {
    String of = " of the profile “" + profile.name() + "”";
    JsonNode all =
        read(
            ARRANGEMENT,
            "The arrangement" + of,
            null,
            profile.arrangement(),
            new TypeReference<>() {},
            null);
    if (all == null) return new Parts(null, null, null, null, null, null, null, null, null, null);
    return new Parts(
        part(all, "layers", "The layers" + of, new TypeReference<List<Layer>>() {}),
        part(all, "sections", "The sections" + of, new TypeReference<List<Section>>() {}),
        part(all, "plugins", "The load order" + of, new TypeReference<List<Wish>>() {}),
        part(
            all,
            "decisions",
            "The decisions on records" + of,
            new TypeReference<Map<String, Map<String, Decided>>>() {}),
        part(
            all,
            "fileChoices",
            "The choices for combined files" + of,
            new TypeReference<Map<String, FileChoices>>() {}),
        part(
            all,
            "heldBack",
            "What is held back" + of,
            new TypeReference<Map<Long, Set<String>>>() {}),
        part(all, "rulings", "The rulings" + of, new TypeReference<List<Ruling>>() {}),
        null,
        null,
        part(all, "muted", "The muted rules" + of, new TypeReference<Set<String>>() {}));
  }

  private <T> T part(JsonNode all, String name, String what, TypeReference<T> type) {
    JsonNode n = all.get(name);
    if (n == null || n.isNull()) return null;
    T read = read(ARRANGEMENT, what, null, n, type, null);
    if (read == null) unreadParts.put(name, n);
    return read;
  }

  /**
   * Of what {@link #parts} was asked for, the parts that could not be read, as they are written.
   */
  Map<String, JsonNode> unreadParts() {
    return unreadParts;
  }

  /** Of what {@link #rules} was asked for, those that could not be read, as they are written. */
  List<JsonNode> unreadRules() {
    return unreadRules;
  }
}
