package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;

/** Made-up mods in made-up releases that need and hinder each other, for the tests. */
final class RandomWorld implements ChoiceQuestion.Offers {
  private static final String[] RANGES = {
    "*", ">=2", "<2", "=1", ">=2 <3", "<=2", "=3 || =1", ">=9"
  };

  final Map<String, List<Candidate>> byMod = new TreeMap<>();
  private final Random random;
  private final int mods;

  RandomWorld(Random random, int mods, int mostReleases) {
    this.random = random;
    this.mods = mods;
    for (int m = 0; m < mods; m++) {
      String mod = id(m);
      int releases = random.nextInt(mostReleases + 1);
      List<Candidate> all = new ArrayList<>();
      int on = random.nextInt(3) == 0 ? -1 : random.nextInt(Math.max(1, releases));
      boolean variants = random.nextInt(4) == 0;
      for (int r = 0; r < releases; r++) all.add(candidate(mod, r, where(r, on), variants));
      byMod.put(mod, all);
    }
  }

  private Where where(int release, int on) {
    if (release == on && random.nextInt(2) == 0) return Where.ON;
    return random.nextInt(4) == 0 ? Where.OFF : Where.TO_FETCH;
  }

  static String id(int m) {
    return "mod-" + (char) ('a' + m % 26) + (m < 26 ? "" : m / 26);
  }

  private Candidate candidate(String mod, int r, Where where, boolean variants) {
    List<Need> needs = new ArrayList<>(), bridges = new ArrayList<>();
    List<Clash> clashes = new ArrayList<>();
    while (random.nextInt(5) < 2) needs.add(need());
    if (random.nextInt(10) == 0) bridges.add(need());
    if (random.nextInt(6) == 0) clashes.add(new Clash(any(), range(), ""));
    boolean fetched = where == Where.TO_FETCH;
    return new Candidate(
        mod,
        mod + "/" + r,
        ModVersion.of(String.valueOf(1 + random.nextInt(3))),
        variants && random.nextBoolean() ? random.nextBoolean() ? "small" : "large" : "",
        where,
        fetched && random.nextInt(8) == 0,
        fetched && random.nextInt(8) == 0,
        VersionRange.of(random.nextInt(8) == 0 ? "<1" : "*"),
        random.nextInt(8) == 0,
        needs,
        clashes,
        bridges);
  }

  private Need need() {
    return new Need(
        any(),
        range(),
        random.nextInt(8) == 0
            ? Optional.of(random.nextBoolean() ? "small" : "")
            : Optional.empty());
  }

  private String any() {
    // one more than there are: somebody needs what is nowhere
    return id(random.nextInt(random.nextInt(10) == 0 ? mods + 1 : mods));
  }

  private VersionRange range() {
    return VersionRange.of(random.nextBoolean() ? "*" : RANGES[random.nextInt(RANGES.length)]);
  }

  /** A question about this world, of wishes or of what is missing. */
  ChoiceQuestion question() {
    List<Wish> wishes = new ArrayList<>();
    boolean missing = random.nextInt(4) == 0;
    Set<String> wished = new HashSet<>();
    int count = missing ? random.nextInt(2) : 1 + random.nextInt(2);
    for (int i = 0; i < count; i++) {
      String mod = id(random.nextInt(mods));
      if (!wished.add(mod)) continue;
      List<Candidate> all = byMod.get(mod);
      if (!all.isEmpty() && random.nextInt(3) == 0)
        wishes.add(
            new Wish(
                mod, Optional.empty(), Optional.of(all.get(random.nextInt(all.size())).key())));
      else if (random.nextInt(5) == 0)
        wishes.add(new Wish(mod, Optional.of("small"), Optional.empty()));
      else wishes.add(new Wish(mod, Optional.empty(), Optional.empty()));
    }
    Map<String, String> variants = random.nextBoolean() ? Map.of() : Map.of(id(0), "large");
    Optional<ModVersion> game =
        random.nextInt(4) == 0 ? Optional.empty() : Optional.of(ModVersion.of("1.4"));
    Set<Statement> givenUp = new HashSet<>();
    if (random.nextInt(4) == 0) {
      for (List<Candidate> all : byMod.values())
        for (Candidate c : all)
          ChoiceRules.required(c).stream()
              .filter(r -> random.nextInt(6) == 0)
              .forEach(r -> givenUp.add(r.statement()));
    }
    return new ChoiceQuestion(this, game, variants, wishes, missing, givenUp);
  }

  @Override
  public Map<String, List<Candidate>> of(Collection<String> mods) {
    Map<String, List<Candidate>> out = new TreeMap<>();
    for (String m : mods) if (byMod.containsKey(m)) out.put(m, byMod.get(m));
    return out;
  }

  @Override
  public Collection<Candidate> on() {
    return byMod.values().stream()
        .flatMap(List::stream)
        .filter(c -> c.where() == Where.ON)
        .toList();
  }
}
