package ironing.server.choice;

import static ironing.core.workspace.Stages.HARMLESS;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.choice.Candidate;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.library.ModCard;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.core.workspace.HarmlessMods;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Catalogues.Offered;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.Identity;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
  private final Map<Long, Identity> identities;
  private final Map<String, List<Candidate>> here = new HashMap<>();
  private final Map<String, Long> modOf = new HashMap<>();
  private final Map<String, String> nowKnownBy = new HashMap<>();
  private final Map<String, String> askedBy = new HashMap<>();
  private final Map<String, ToFetch> toFetch = new HashMap<>();
  private final Map<String, String> names = new HashMap<>();
  private final HarmlessMods harmless;

  /** A release that a catalogue offers. */
  record ToFetch(long catalogue, String catalogueTitle, String mod, String name, Release release) {}

  Candidates(OpenWorkspace open, Catalogues catalogues, Identities identities) {
    this.open = open;
    this.catalogues = catalogues;
    this.harmless = open.get(HARMLESS);
    this.identities = identities.of(open);
    Set<Long> on = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers()) if (l.on()) on.add(l.mod());
    Map<String, Candidate> onById = new HashMap<>();
    for (Mod m : open.mods().values()) {
      names.put(idOf(m), m.card().name());
      if (!on.contains(m.id())) continue;
      Candidate c = candidate(m, Where.ON);
      // of two mods of one id that are on, the newer one counts
      onById.merge(idOf(m), c, (a, b) -> a.version().compareTo(b.version()) >= 0 ? a : b);
    }
    for (Mod m : open.mods().values()) {
      Candidate c = candidate(m, Where.OFF);
      Candidate isOn = onById.get(idOf(m));
      here.computeIfAbsent(idOf(m), i -> new ArrayList<>())
          .add(isOn != null && isOn.key().equals(c.key()) ? isOn : c);
      modOf.put(c.key(), m.id());
    }
  }

  private Candidate candidate(Mod m, Where where) {
    ModCard card = m.card();
    Optional<Identity> identity = Optional.ofNullable(identities.get(m.id()));
    return new Candidate(
        idOf(m),
        "here:" + m.id(),
        identity.map(i -> i.version(card)).orElseGet(() -> ModVersion.of(card.version())),
        identity.map(i -> i.variant(card)).orElse(card.variant()),
        where,
        false,
        false,
        VersionRange.of(card.gameVersions()),
        harmless.contains(m.id()),
        card.needs().stream().map(ModCard.Need::offered).toList(),
        card.clashes().stream()
            .map(c -> new Clash(c.mod(), VersionRange.of(c.versions()), c.why()))
            .toList(),
        card.bridges().stream().map(ModCard.Need::offered).toList());
  }

  // a mend is in no catalogue
  private String idOf(Mod m) {
    Identity identity = identities.get(m.id());
    return identity == null ? m.card().id() : identity.mod();
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
      String key = o.keyOf(r);
      Optional<Candidate> known =
          all.stream()
              .filter(c -> c.version().equals(r.version()) && c.variant().equals(r.variant()))
              .findFirst();
      // of catalogues that offer the same version the first one counts
      if (known.isPresent()) {
        nowKnownBy.put(key, known.get().key());
        continue;
      }
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

  /**
   * A wish for a release as a wish for what stands for it now: once it has been fetched, that is
   * the mod of the library.
   */
  Wish wishNow(Wish w) {
    if (w.key().isEmpty()) return w;
    of(List.of(w.mod()));
    String now = nowKnownBy.getOrDefault(w.key().get(), w.key().get());
    askedBy.put(now, w.key().get());
    return new Wish(w.mod(), w.variant(), Optional.of(now));
  }

  /** The key by which a release was wished for; the other way round than {@link #wishNow}. */
  String askedKey(String key) {
    return askedBy.getOrDefault(key, key);
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
