package ironing.server.choice;

import static ironing.core.workspace.Stages.HARMLESS;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.choice.Candidate;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion;
import ironing.core.library.ModCard;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.core.workspace.HarmlessMods;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Catalogues.Offered;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What can be on in a workspace: the mods of its library by their cards, and the releases that its
 * catalogues offer and that are not in the library in that version and variant.
 *
 * <p>Remembers what it has told, for the words of the answer.
 */
final class Candidates implements ChoiceQuestion.Offers {
  private final OpenWorkspace open;
  private final Catalogues catalogues;
  private final Map<String, List<Candidate>> here = new HashMap<>();
  private final Map<String, Long> modOf = new HashMap<>();
  private final Map<String, ToFetch> toFetch = new HashMap<>();
  private final Map<String, String> names = new HashMap<>();
  private final HarmlessMods harmless;

  /** A release that a catalogue offers. */
  record ToFetch(long catalogue, String catalogueTitle, String mod, String name, Release release) {}

  Candidates(OpenWorkspace open, Catalogues catalogues) {
    this.open = open;
    this.catalogues = catalogues;
    this.harmless = open.get(HARMLESS);
    Set<Long> on = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers()) if (l.on()) on.add(l.mod());
    Map<String, Candidate> onById = new HashMap<>();
    for (Mod m : open.mods().values()) {
      names.put(m.card().id(), m.card().name());
      if (!on.contains(m.id())) continue;
      Candidate c = candidate(m, Where.ON);
      // of two mods of one id that are on, the newer one counts
      onById.merge(m.card().id(), c, (a, b) -> a.version().compareTo(b.version()) >= 0 ? a : b);
    }
    for (Mod m : open.mods().values()) {
      Candidate c = candidate(m, Where.OFF);
      Candidate isOn = onById.get(m.card().id());
      here.computeIfAbsent(m.card().id(), i -> new ArrayList<>())
          .add(isOn != null && isOn.key().equals(c.key()) ? isOn : c);
      modOf.put(c.key(), m.id());
    }
  }

  private Candidate candidate(Mod m, Where where) {
    ModCard card = m.card();
    return new Candidate(
        card.id(),
        "here:" + m.id(),
        ModVersion.of(card.version()),
        card.variant(),
        where,
        false,
        false,
        VersionRange.of(card.gameVersions()),
        harmless.contains(m.id()),
        card.needs().stream().map(Candidates::need).toList(),
        card.clashes().stream()
            .map(c -> new Clash(c.mod(), VersionRange.of(c.versions()), c.why()))
            .toList(),
        card.bridges().stream().map(Candidates::need).toList());
  }

  private static Need need(ModCard.Need n) {
    return new Need(n.mod(), VersionRange.of(n.versions()), n.variant());
  }

  @Override
  public Map<String, List<Candidate>> of(Collection<String> mods) {
    Map<String, List<Candidate>> out = new HashMap<>();
    for (String mod : mods) out.put(mod, new ArrayList<>(here.getOrDefault(mod, List.of())));
    catalogues
        .offered(open.workspace(), mods)
        .forEach(
            (mod, offered) -> {
              for (Offered o : offered) add(out.get(mod), o);
            });
    return out;
  }

  private void add(List<Candidate> all, Offered o) {
    names.putIfAbsent(o.mod().mod(), o.mod().name());
    for (Release r : o.mod().releases()) {
      boolean known =
          all.stream()
              .anyMatch(c -> c.version().equals(r.version()) && c.variant().equals(r.variant()));
      // of catalogues that offer the same version the first one counts
      if (known) continue;
      String key = o.catalogue() + ":" + r.file().sha256();
      if (toFetch.containsKey(key) && all.stream().anyMatch(c -> c.key().equals(key))) continue;
      toFetch.put(key, new ToFetch(o.catalogue(), o.title(), o.mod().mod(), o.mod().name(), r));
      all.add(
          new Candidate(
              o.mod().mod(),
              key,
              r.version(),
              r.variant(),
              Where.TO_FETCH,
              r.kind() == Kind.OLD,
              !r.withdrawn().isEmpty(),
              r.game(),
              r.harmless(),
              r.needs(),
              r.clashes(),
              r.bridges()));
    }
  }

  @Override
  public Collection<Candidate> on() {
    return here.values().stream()
        .flatMap(List::stream)
        .filter(c -> c.where() == Where.ON)
        .sorted(Comparator.comparing(Candidate::mod))
        .toList();
  }

  /** What to call a mod. */
  String nameOf(String mod) {
    return names.getOrDefault(mod, mod);
  }

  /** The mod of the library that a candidate is; it must be one. */
  long modOf(Candidate c) {
    return modOf.get(c.key());
  }

  /** Where a candidate is fetched from; it must be one that is not here. */
  ToFetch toFetch(Candidate c) {
    return toFetch.get(c.key());
  }
}
