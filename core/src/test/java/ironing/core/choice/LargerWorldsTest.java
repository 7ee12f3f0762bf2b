package ironing.core.choice;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.None;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/**
 * Worlds that are too large to look at every set, judged by Debian's clasp: a solver that shares
 * nothing with ours, given the same question in the format of the pseudo-Boolean competitions
 * (OPB). Nothing is here yet, so that the fewest to fetch are the fewest mods that have all.
 */
class LargerWorldsTest {
  private static final int MODS = 60;

  @Property(tries = 150, seed = "26")
  void as_few_are_fetched_as_another_solver_finds(@ForAll long seed) throws Exception {
    Random random = new Random(seed);
    Map<String, List<Candidate>> all = world(random);
    List<Wish> wishes = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      List<Candidate> of = all.get("m" + random.nextInt(MODS));
      Candidate c = of.get(random.nextInt(of.size()));
      if (wishes.stream().noneMatch(w -> w.mod().equals(c.mod())))
        wishes.add(new Wish(c.mod(), Optional.empty(), Optional.of(c.key())));
    }
    ChoiceAnswer answer =
        WhatItBrings.answer(
            new ChoiceQuestion(offers(all), Optional.empty(), Map.of(), wishes, false, Set.of()),
            Duration.ofSeconds(60));
    OptionalInt fewest = byClasp(all, wishes);
    if (fewest.isEmpty()) {
      assertThat(answer).isInstanceOf(None.class);
    } else {
      assertThat(answer).isInstanceOf(Found.class);
      assertThat(((Found) answer).members()).hasSize(fewest.getAsInt());
      assertThat(((Found) answer).best()).isTrue();
    }
  }

  private static Map<String, List<Candidate>> world(Random random) {
    Map<String, List<Candidate>> all = new HashMap<>();
    for (int m = 0; m < MODS; m++) {
      List<Candidate> releases = new ArrayList<>();
      for (int v = 1; v <= 1 + random.nextInt(4); v++) {
        List<Need> needs = new ArrayList<>();
        while (random.nextInt(5) < 3)
          needs.add(
              new Need(
                  "m" + random.nextInt(MODS),
                  VersionRange.of(random.nextInt(3) == 0 ? "<=" + (1 + random.nextInt(3)) : "*"),
                  Optional.empty()));
        List<Clash> clashes = new ArrayList<>();
        if (random.nextInt(3) == 0)
          clashes.add(
              new Clash(
                  "m" + random.nextInt(MODS),
                  VersionRange.of(random.nextBoolean() ? ">=" + (1 + random.nextInt(3)) : "*"),
                  ""));
        releases.add(
            new Candidate(
                "m" + m,
                "m" + m + "/" + v,
                ModVersion.of("" + v),
                "",
                Where.TO_FETCH,
                false,
                false,
                VersionRange.of("*"),
                false,
                needs,
                clashes,
                List.of()));
      }
      all.put("m" + m, releases);
    }
    return all;
  }

  private static ChoiceQuestion.Offers offers(Map<String, List<Candidate>> all) {
    return new ChoiceQuestion.Offers() {
      @Override
      public Map<String, List<Candidate>> of(Collection<String> mods) {
        Map<String, List<Candidate>> out = new HashMap<>();
        for (String m : mods) out.put(m, all.get(m));
        return out;
      }

      @Override
      public Collection<Candidate> on() {
        return List.of();
      }
    };
  }

  /** The fewest that clasp finds; empty where it says that there is no set. */
  private static OptionalInt byClasp(Map<String, List<Candidate>> all, List<Wish> wishes)
      throws IOException, InterruptedException {
    Map<Candidate, String> names = new HashMap<>();
    List<Candidate> list = all.values().stream().flatMap(List::stream).toList();
    for (Candidate c : list) names.put(c, "x" + (names.size() + 1));
    List<String> lines = new ArrayList<>();
    StringBuilder sum = new StringBuilder("min:");
    for (Candidate c : list) sum.append(" +1 ").append(names.get(c));
    for (List<Candidate> mod : all.values()) {
      StringBuilder one = new StringBuilder();
      for (Candidate c : mod) one.append("-1 ").append(names.get(c)).append(' ');
      lines.add(one + ">= -1 ;");
    }
    for (Candidate c : list) {
      for (Need n : c.needs()) {
        StringBuilder met = new StringBuilder("-1 " + names.get(c) + " ");
        boolean itself = false;
        for (Candidate d : all.get(n.mod())) {
          if (!n.versions().contains(d.version())) continue;
          itself |= d.equals(c);
          if (!d.equals(c)) met.append("+1 ").append(names.get(d)).append(' ');
        }
        if (!itself) lines.add(met + ">= 0 ;");
      }
      for (Clash x : c.clashes())
        for (Candidate d : all.get(x.mod()))
          if (!d.mod().equals(c.mod()) && x.versions().contains(d.version()))
            lines.add("-1 " + names.get(c) + " -1 " + names.get(d) + " >= -1 ;");
    }
    for (Wish w : wishes)
      for (Candidate c : all.get(w.mod()))
        if (c.key().equals(w.key().orElseThrow())) lines.add("+1 " + names.get(c) + " >= 1 ;");
    Path file = Files.createTempFile("choice", ".opb");
    try {
      String head = "* #variable= " + list.size() + " #constraint= " + lines.size() + "\n";
      Files.writeString(file, head + sum + " ;\n" + String.join("\n", lines) + "\n");
      Process clasp =
          new ProcessBuilder("clasp", file.toString()).redirectErrorStream(true).start();
      String said = new String(clasp.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      clasp.waitFor();
      if (said.contains("s UNSATISFIABLE")) return OptionalInt.empty();
      assertThat(said).contains("s OPTIMUM FOUND");
      return said.lines()
          .filter(l -> l.startsWith("o "))
          .mapToInt(l -> Integer.parseInt(l.substring(2).strip()))
          .reduce((a, b) -> b);
    } finally {
      Files.delete(file);
    }
  }
}
