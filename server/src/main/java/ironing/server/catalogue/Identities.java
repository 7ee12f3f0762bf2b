package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.catalogue.PartLines;
import ironing.core.library.ModCard;
import ironing.core.version.ModVersion;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.CatalogueSearchMapper.ArchiveOf;
import ironing.server.catalogue.CatalogueSearchMapper.FileRow;
import ironing.server.catalogue.CatalogueSearchMapper.SaidRow;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** Which mods of the catalogues the installed ones are. */
@Component
public class Identities {
  private static final Pattern ID = Pattern.compile("[a-z0-9-]{1,64}");
  private final CatalogueSearchMapper db;
  private final OpenWorkspaces workspaces;
  private final Json json;

  Identities(CatalogueSearchMapper db, OpenWorkspaces workspaces, Json json) {
    this.db = db;
    this.workspaces = workspaces;
    this.json = json;
  }

  /** By what a mod is known. */
  public enum How {
    /** The user has said so. */
    SAID,
    /** The user has said that no catalogue has it. */
    SAID_NONE,
    /** A catalogue has the id of its card. */
    CARD,
    /** It has no card, and a catalogue has the archive that it came from. */
    ARCHIVE,
    /** It has no card, and a catalogue has the id that its archive's name comes to. */
    NAME,
    /** No catalogue has it. */
    NONE
  }

  /**
   * What a mod is in the catalogues.
   *
   * @param mod the id there; that of its card where none has it
   * @param release what its archive is, where it is known by that
   */
  public record Identity(String mod, How how, Optional<Release> release) {
    /** Whether a catalogue may have it. */
    public boolean isOffered() {
      return how != How.NONE && how != How.SAID_NONE;
    }

    /** The version, as the catalogue or else the card has it. */
    public ModVersion version(ModCard card) {
      return release.map(Release::version).orElseGet(() -> ModVersion.of(card.version()));
    }

    /** The variant, likewise. */
    public String variant(ModCard card) {
      return release.map(Release::variant).orElse(card.variant());
    }
  }

  /**
   * Tells it of every mod that came from an archive, by its number. Cost: a look at all that is
   * offered, where some mod has no card and the user has not said what it is.
   */
  public Map<Long, Identity> of(OpenWorkspace open) {
    Map<Long, String> said = new HashMap<>();
    for (SaidRow r : db.said(open.workspace())) said.put(r.strandId(), r.mod());
    Set<String> ids = new TreeSet<>();
    for (Mod m : open.mods().values()) ids.add(m.card().id());
    String game = open.game().id();
    Set<String> known = new HashSet<>(db.known(open.workspace(), game, json.write(ids)));
    Map<Long, Identity> out = new HashMap<>();
    Set<Long> others = new HashSet<>();
    for (Mod m : open.mods().values()) {
      if (m.isMend()) continue;
      String id = m.card().id(), word = said.get(m.strand());
      if (word != null) out.put(m.id(), said(word, id));
      else if (m.card().inferred()) others.add(m.id());
      else
        out.put(
            m.id(), new Identity(id, known.contains(id) ? How.CARD : How.NONE, Optional.empty()));
    }
    out.putAll(byArchive(open, others));
    for (long mod : others) {
      String id = open.mods().get(mod).card().id();
      How how = known.contains(id) ? How.NAME : How.NONE;
      out.putIfAbsent(mod, new Identity(id, how, Optional.empty()));
    }
    return out;
  }

  private static Identity said(String word, String id) {
    return word.isEmpty()
        ? new Identity(id, How.SAID_NONE, Optional.empty())
        : new Identity(word, How.SAID, Optional.empty());
  }

  private Map<Long, Identity> byArchive(OpenWorkspace open, Set<Long> mods) {
    Map<Long, Identity> out = new HashMap<>();
    if (mods.isEmpty()) return out;
    Map<String, Set<Long>> byDigest = new HashMap<>();
    Set<Long> prefixes = new TreeSet<>();
    for (ArchiveOf a : db.archives(open.workspace())) {
      if (!mods.contains(a.mod())) continue;
      byDigest.computeIfAbsent(a.sha256(), s -> new TreeSet<>()).add(a.mod());
      prefixes.add(CatalogueTaking.prefix(a.sha256()));
    }
    if (prefixes.isEmpty()) return out;
    List<FileRow> rows = db.withFiles(open.workspace(), open.game().id(), json.write(prefixes));
    for (FileRow row : rows) {
      OfferedMod offered = PartLines.again(row.line());
      for (Release r : offered.releases()) {
        Identity is = new Identity(offered.mod(), How.ARCHIVE, Optional.of(r));
        for (long mod : byDigest.getOrDefault(r.file().sha256(), Set.of()))
          out.putIfAbsent(mod, is);
      }
    }
    return out;
  }

  /**
   * Says which mod of the catalogues a mod is.
   *
   * @param as the id there; empty where it is none of them
   * @throws IroningException with code {@code identity-invalid}
   */
  public void say(OpenWorkspace open, long mod, String as) {
    Mod m = open.required(mod);
    if (!as.isEmpty() && !ID.matcher(as).matches()) {
      throw IroningException.of(
          "identity-invalid",
          "“" + as + "”",
          "This is no id of a mod: lower-case letters, digits and hyphens, at most 64.",
          "Copy the id from the catalogue.");
    }
    workspaces.note(
        open.workspace(),
        "catalogues",
        as.isEmpty()
            ? open.nameOf(mod) + " is in no catalogue"
            : open.nameOf(mod) + " is “" + as + "” of the catalogues",
        () -> db.say(m.strand(), as));
  }

  /** Takes back what was said. */
  public void unsay(OpenWorkspace open, long mod) {
    Mod m = open.required(mod);
    workspaces.note(
        open.workspace(),
        "catalogues",
        open.nameOf(mod) + " is known by its card or archive again",
        () -> db.unsay(m.strand()));
  }
}
