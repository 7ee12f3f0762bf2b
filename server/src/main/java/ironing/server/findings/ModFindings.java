package ironing.server.findings;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.OfSet;
import ironing.core.catalogue.FindingLines;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.Identity;
import ironing.server.findings.ModFindingMapper.FindingRow;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What is known of mods by findings. */
@Component
public class ModFindings {
  private static final int MOST_TOLD = 20;
  private final ModFindingMapper db;
  private final Catalogues catalogues;
  private final Identities identities;
  private final OpenWorkspaces workspaces;
  private final Json json;

  ModFindings(
      ModFindingMapper db,
      Catalogues catalogues,
      Identities identities,
      OpenWorkspaces workspaces,
      Json json) {
    this.db = db;
    this.catalogues = catalogues;
    this.identities = identities;
    this.workspaces = workspaces;
    this.json = json;
  }

  /**
   * Where a finding is from.
   *
   * @param id its number; 0 for one of a catalogue, which cannot be taken away here
   */
  record Sourced(long id, boolean own, Finding finding, boolean speaks) {}

  /**
   * What findings say of the mods of a set, by the id in the catalogues.
   *
   * @param own the user's
   * @param others those that count of all others; see {@link Finding#counting}
   */
  public record Known(Map<String, List<Finding>> own, Map<String, List<Finding>> others) {}

  /** A row of {@link ModFindingMapper#add}. */
  private record NewRow(String mod, String line) {
    static NewRow of(Finding f) {
      return new NewRow(f.mod(), FindingLines.line(f));
    }
  }

  /** The findings that speak of what is on now. */
  public Known speaking(OpenWorkspace open) {
    OfSet set = set(open);
    List<Finding> own = new ArrayList<>(), others = new ArrayList<>();
    for (Sourced s : all(open, set.on().keySet(), set))
      if (s.speaks()) (s.own() ? own : others).add(s.finding());
    return new Known(byMod(own), byMod(Finding.counting(others)));
  }

  private static Map<String, List<Finding>> byMod(List<Finding> all) {
    return all.stream().collect(Collectors.groupingBy(Finding::mod));
  }

  private OfSet set(OpenWorkspace open) {
    Map<Long, Identity> known = identities.of(open);
    Map<String, ModVersion> on = new HashMap<>();
    for (Layer l : open.picture().arrangement().layers()) {
      Identity i = known.get(l.mod());
      if (l.on() && i != null) on.put(i.mod(), i.version(open.mods().get(l.mod()).card()));
    }
    return new OfSet(on, open.gameVersion().map(ModVersion::of));
  }

  /**
   * All findings about one mod, alone or with others; or about all that are on: the user's, those
   * that were brought in, those of the catalogues. Of others only those that count.
   */
  List<Sourced> about(OpenWorkspace open, Optional<String> mod) {
    OfSet set = set(open);
    Set<String> mods = new TreeSet<>(set.on().keySet());
    mod.ifPresent(mods::add);
    List<Sourced> all =
        all(open, mods, set).stream()
            .filter(s -> mod.map(m -> isAbout(s.finding(), m)).orElse(true))
            .toList();
    List<Finding> others = all.stream().filter(s -> !s.own()).map(Sourced::finding).toList();
    // two that say the same are two findings
    Set<Finding> counting = Collections.newSetFromMap(new IdentityHashMap<>());
    counting.addAll(Finding.counting(others));
    return all.stream().filter(s -> s.own() || counting.contains(s.finding())).toList();
  }

  private static boolean isAbout(Finding f, String mod) {
    return f.mod().equals(mod) || f.with().stream().anyMatch(w -> w.mod().equals(mod));
  }

  private List<Sourced> all(OpenWorkspace open, Collection<String> mods, OfSet set) {
    List<Sourced> out = new ArrayList<>();
    List<FindingRow> rows = db.about(open.workspace(), json.write(mods));
    List<Finding> here = FindingLines.again(rows.stream().map(FindingRow::line).toList());
    for (int i = 0; i < rows.size(); i++) {
      FindingRow r = rows.get(i);
      Finding f = here.get(i);
      out.add(new Sourced(r.id(), r.own(), f, f.speaksOf(set)));
    }
    for (Finding f : catalogues.findings(open.workspace(), mods))
      out.add(new Sourced(0, false, f, f.speaksOf(set)));
    return out;
  }

  /** Writes a finding of the user down. */
  public void add(OpenWorkspace open, Finding finding) {
    workspaces.note(
        open.workspace(),
        "findings",
        "Found out about " + finding.mod() + ": " + FindingLines.word(finding.verdict()),
        () -> db.add(open.workspace(), true, json.write(List.of(NewRow.of(finding)))));
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  void remove(OpenWorkspace open, long id) {
    workspaces.note(
        open.workspace(),
        "findings",
        "Took a finding away",
        () -> {
          if (db.remove(open.workspace(), id) > 0) return;
          throw IroningException.of(
              "not-found",
              "Finding " + id,
              "There is no such finding of yours, or that was brought in.",
              "Look at the list as it is now.");
        });
  }

  /** Takes all away that were brought in; the user's own stay. */
  void removeOthers(OpenWorkspace open) {
    workspaces.note(
        open.workspace(),
        "findings",
        "Took away the findings that were brought in",
        () -> db.removeOthers(open.workspace()));
  }

  /** The user's findings as lines. */
  String exported(OpenWorkspace open) {
    StringBuilder out = new StringBuilder();
    for (FindingRow r : db.about(open.workspace(), "[]")) out.append(r.line()).append('\n');
    return out.toString();
  }

  /**
   * Brings findings of others in: all lines or none.
   *
   * @return how many
   * @throws IroningException with code {@code finding-invalid} for each line that cannot be read
   */
  int bringIn(OpenWorkspace open, String text) {
    List<Finding> found = new ArrayList<>();
    List<Problem> wrong = new ArrayList<>();
    try {
      FindingLines.read(
          new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)),
          found::add,
          m -> {
            if (wrong.size() < MOST_TOLD) wrong.add(invalid("Line " + m.line(), m.reason()));
          });
    } catch (IOException e) {
      throw new IllegalStateException("a text in memory can be read", e);
    }
    if (!wrong.isEmpty()) throw new IroningException(wrong);
    if (found.isEmpty())
      throw new IroningException(List.of(invalid("The text", "holds no finding")));
    workspaces.note(
        open.workspace(),
        "findings",
        "Brought in " + found.size() + (found.size() == 1 ? " finding" : " findings"),
        () -> db.add(open.workspace(), false, json.write(found.stream().map(NewRow::of).toList())));
    return found.size();
  }

  static Problem invalid(String what, String reason) {
    return new Problem(
        "finding-invalid",
        what,
        "It is no finding: " + reason + ".",
        "Write one JSON object a line, with mod, verdict and at.");
  }
}
