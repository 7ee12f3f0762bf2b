package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceAnswer.Becomes;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** A few mods as a test says them, and answers as lines. */
final class FixedWorld implements ChoiceQuestion.Offers {
  private final List<Entry> entries = new ArrayList<>();

  /** A candidate that is being described. */
  final class Entry {
    private final String mod;
    private final String version;
    private final Where where;
    private final List<Need> needs = new ArrayList<>();
    private final List<Clash> clashes = new ArrayList<>();
    private String variant = "";

    private Entry(String mod, String version, Where where) {
      this.mod = mod;
      this.version = version;
      this.where = where;
      entries.add(this);
    }

    Entry needs(String mod, String versions) {
      needs.add(new Need(mod, VersionRange.of(versions), Optional.empty()));
      return this;
    }

    Entry clashes(String mod, String versions) {
      clashes.add(new Clash(mod, VersionRange.of(versions), ""));
      return this;
    }

    Entry variant(String variant) {
      this.variant = variant;
      return this;
    }

    private Candidate candidate() {
      return new Candidate(
          mod,
          version + variant + where,
          ModVersion.of(version),
          variant,
          where,
          false,
          false,
          VersionRange.of("*"),
          false,
          needs,
          clashes,
          List.of());
    }
  }

  Entry offered(String mod, String version) {
    return new Entry(mod, version, Where.TO_FETCH);
  }

  Entry on(String mod, String version) {
    return new Entry(mod, version, Where.ON);
  }

  Entry off(String mod, String version) {
    return new Entry(mod, version, Where.OFF);
  }

  ChoiceQuestion question(String... wishes) {
    List<Wish> all = new ArrayList<>();
    for (String w : wishes) all.add(new Wish(w, Optional.empty(), Optional.empty()));
    return new ChoiceQuestion(this, Optional.empty(), Map.of(), all, false, Set.of());
  }

  List<String> told(String... wishes) {
    return told(question(wishes));
  }

  /** What filling in what is missing brings; what stays is left out. */
  List<String> missing() {
    return told(new ChoiceQuestion(this, Optional.empty(), Map.of(), List.of(), true, Set.of()))
        .stream()
        .filter(l -> !l.endsWith(Becomes.STAYS.name()))
        .toList();
  }

  private static List<String> told(ChoiceQuestion question) {
    Found found = (Found) WhatItBrings.answer(question, Duration.ofSeconds(60));
    List<String> out = new ArrayList<>();
    found
        .members()
        .forEach(
            m -> out.add(m.candidate().mod() + " " + m.candidate().version() + " " + m.becomes()));
    found.off().forEach(o -> out.add("- " + words(List.of(o.because().orElseThrow())).get(0)));
    words(found.unmet()).forEach(w -> out.add("unmet " + w));
    return out;
  }

  static List<String> words(List<Statement> all) {
    List<String> out = new ArrayList<>();
    for (Statement s : all)
      out.add(
          s.kind() == Statement.Kind.WISH
              ? "WISH " + s.owner()
              : s.owner() + " " + s.kind() + " " + s.target() + " " + s.versions());
    return out;
  }

  @Override
  public Map<String, List<Candidate>> of(Collection<String> mods) {
    Map<String, List<Candidate>> out = new TreeMap<>();
    for (Entry e : entries)
      if (mods.contains(e.mod))
        out.computeIfAbsent(e.mod, m -> new ArrayList<>()).add(e.candidate());
    return out;
  }

  @Override
  public Collection<Candidate> on() {
    return entries.stream().filter(e -> e.where == Where.ON).map(Entry::candidate).toList();
  }
}
