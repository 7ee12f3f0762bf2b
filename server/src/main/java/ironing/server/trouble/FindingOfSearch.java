package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.catalogue.Finding.With;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.version.VersionRange;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.Identity;
import ironing.server.findings.ModFindings;
import ironing.server.workspace.OpenWorkspace;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/**
 * What a search has found as a finding of the user's: the mods in their versions, with the proof.
 */
@Component
class FindingOfSearch {
  private final ModFindings findings;
  private final Identities identities;

  FindingOfSearch(ModFindings findings, Identities identities) {
    this.findings = findings;
    this.identities = identities;
  }

  /**
   * Writes it down.
   *
   * @throws IroningException with code {@code search-nothing} where the search has found no mod
   */
  void write(OpenWorkspace open, Search search, FaultFacts question) {
    List<Part> parts =
        search.next() instanceof Next.Found f ? search.parts(f.set()) : List.<Part>of();
    List<With> mods = new ArrayList<>();
    Map<Long, Identity> known = identities.of(open);
    for (Part p : parts) {
      Identity i = known.get(p.mod());
      if (i == null) continue;
      String version = open.mods().get(p.mod()).card().version();
      mods.add(new With(i.mod(), VersionRange.of("=" + version)));
    }
    if (mods.isEmpty())
      throw IroningException.of(
          "search-nothing",
          "Search " + search.id(),
          "It has found no mod of which something could be said.",
          "Go on with it first.");
    findings.add(
        open,
        new Finding(
            mods.get(0).mod(),
            mods.get(0).versions(),
            open.gameVersion().map(v -> VersionRange.of("=" + v)),
            mods.subList(1, mods.size()),
            Verdict.BROKEN,
            FaultFacts.finding(search.fault(), question.proof()),
            LocalDate.now(ZoneId.systemDefault()).toString(),
            ""));
  }
}
