package ironing.server.trouble;

import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.picture.Arrangement;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Fault;
import ironing.core.trouble.Part;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.Suspects;
import ironing.core.trouble.Suspicions.Reason;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.Identities;
import ironing.server.findings.ModFindings;
import ironing.server.lists.Departures;
import ironing.server.platform.Json;
import ironing.server.testrun.Runs;
import ironing.server.testrun.Runs.Earlier;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.Profiles;
import ironing.server.wrinkles.Wrinkles;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.time.OffsetDateTime;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Who is suspected of a fault, from all that is known of the mods that are on. */
@Component
class Suspecting {
  private final Runs runs;
  private final Profiles profiles;
  private final Wrinkles wrinkles;
  private final ModFindings findings;
  private final Identities identities;
  private final Departures departures;
  private final SearchMapper db;
  private final Json json;

  Suspecting(
      Runs runs,
      Profiles profiles,
      Wrinkles wrinkles,
      ModFindings findings,
      Identities identities,
      Departures departures,
      SearchMapper db,
      Json json) {
    this.runs = runs;
    this.profiles = profiles;
    this.wrinkles = wrinkles;
    this.findings = findings;
    this.identities = identities;
    this.departures = departures;
    this.db = db;
    this.json = json;
  }

  /**
   * @param worked the last run of the profile that did not show the fault
   * @param reasons by mod
   */
  record Suspected(Optional<Earlier> worked, Map<Long, Set<Reason>> reasons) {}

  Suspected of(OpenWorkspace open, Fault fault, Named named) {
    Optional<Earlier> worked =
        runs.earlier(open.workspace(), open.profile()).stream()
            .filter(e -> fault.in(e.facts(), open.game().pathCase()) == Answer.WORKS)
            .findFirst();
    Optional<Arrangement> then = worked.map(e -> profiles.read(open, e.arrangement()));
    Map<Long, Set<Reason>> told = new HashMap<>();
    for (Wrinkle w : wrinkles.of(open)) {
      add(told, w.mod(), Reason.WRINKLE);
      add(told, w.other(), Reason.WRINKLE);
    }
    for (long mod : departures.of(open)) add(told, mod, Reason.DEPARTS);
    ofFindings(open, told);
    recalled(open, fault, told);
    worked.ifPresent(e -> come(open, e.startedAt(), told));
    return new Suspected(worked, Suspects.of(open.value(), new Suspects.Known(then, named, told)));
  }

  private static void add(Map<Long, Set<Reason>> told, Long mod, Reason reason) {
    if (mod != null) told.computeIfAbsent(mod, m -> EnumSet.noneOf(Reason.class)).add(reason);
  }

  private void ofFindings(OpenWorkspace open, Map<Long, Set<Reason>> told) {
    ModFindings.Known known = findings.speaking(open);
    identities
        .of(open)
        .forEach(
            (mod, identity) -> {
              if (broken(known.own().get(identity.mod()))) add(told, mod, Reason.FOUND_BROKEN);
              if (broken(known.others().get(identity.mod()))) add(told, mod, Reason.SAID_BROKEN);
            });
  }

  private static boolean broken(List<Finding> found) {
    return found != null && found.stream().anyMatch(f -> f.verdict() == Verdict.BROKEN);
  }

  private static void come(OpenWorkspace open, OffsetDateTime since, Map<Long, Set<Reason>> told) {
    for (Mod m : open.mods().values())
      if (m.installedAt().isAfter(since)) add(told, m.id(), Reason.NEW);
  }

  /** The mods, in any version, that an earlier search has found behind the same fault. */
  private void recalled(OpenWorkspace open, Fault fault, Map<Long, Set<Reason>> told) {
    Set<Long> strands =
        earlier(open, fault).stream()
            .flatMap(s -> List.of(json.read(s.found(), Part[].class)).stream())
            .map(p -> open.mods().get(p.mod()))
            .filter(m -> m != null)
            .map(Mod::strand)
            .collect(Collectors.toSet());
    for (Mod m : open.mods().values())
      if (strands.contains(m.strand())) add(told, m.id(), Reason.RECALLED);
  }

  /** The searches among mods that have found who was behind the same fault. */
  List<SearchRow> earlier(OpenWorkspace open, Fault fault) {
    return db.all(open.workspace()).stream()
        .filter(s -> s.state() == SearchState.FOUND && s.level() == Level.MODS)
        .filter(s -> fault.isTold() && json.read(s.fault(), Fault.class).equals(fault))
        .toList();
  }
}
