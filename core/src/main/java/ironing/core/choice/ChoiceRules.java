package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.Statement.Kind;
import ironing.core.version.ModVersion;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** What statements and candidates mean, one by one; how they hold together is told elsewhere. */
final class ChoiceRules {
  /** The higher version first, then by variant and key: no two of a mod are equal. */
  static final Comparator<Candidate> BEST_FIRST =
      Comparator.comparing(Candidate::version)
          .reversed()
          .thenComparing(Candidate::variant)
          .thenComparing(Candidate::where)
          .thenComparing(Candidate::key);

  private ChoiceRules() {}

  static boolean meets(Need need, Candidate c) {
    return c.mod().equals(need.mod())
        && need.versions().contains(c.version())
        && need.variant().map(c.variant()::equals).orElse(true);
  }

  static boolean clashes(Clash clash, Candidate c) {
    return c.mod().equals(clash.mod()) && clash.versions().contains(c.version());
  }

  static boolean fits(Candidate c, Optional<ModVersion> game) {
    return c.harmless() || game.isEmpty() || c.game().contains(game.get());
  }

  /** Whether a wish that names no release can mean this one, the game's version apart. */
  static boolean isForAll(Candidate c) {
    return !c.old() && !c.withdrawn();
  }

  /** What a candidate says of mods that have to be on: its needs, and what it is a bridge for. */
  static List<Required> required(Candidate c) {
    List<Required> out = new ArrayList<>();
    for (Need n : c.needs()) out.add(new Required(statement(Kind.NEED, c, n), n));
    for (Need n : c.bridges()) out.add(new Required(statement(Kind.BRIDGE, c, n), n));
    return out;
  }

  record Required(Statement statement, Need need) {}

  static Statement clash(Candidate c, Clash clash) {
    return new Statement(
        Kind.CLASH, c.mod(), clash.mod(), clash.versions().toString(), Optional.empty());
  }

  static Statement game(Candidate c) {
    return new Statement(Kind.GAME, c.mod(), "", c.game().toString(), Optional.empty());
  }

  private static Statement statement(Kind kind, Candidate c, Need n) {
    return new Statement(kind, c.mod(), n.mod(), n.versions().toString(), n.variant());
  }

  /**
   * The variant that is meant of a mod that is not here where nobody says one: the plain one, else
   * the catalogue's; empty where neither is offered.
   */
  static Optional<String> meant(List<Candidate> all, Optional<String> byDefault) {
    if (all.stream().anyMatch(c -> c.variant().isEmpty())) return Optional.of("");
    return byDefault.filter(v -> all.stream().anyMatch(c -> c.variant().equals(v)));
  }

  /** What of a mod is here: what is on, else the newest that is not. */
  static Optional<Candidate> here(List<Candidate> all) {
    return all.stream()
        .filter(Candidate::isHere)
        .min(Comparator.comparing(Candidate::where).thenComparing(BEST_FIRST));
  }

  static Optional<Candidate> on(List<Candidate> all) {
    return all.stream().filter(c -> c.where() == Where.ON).findFirst();
  }
}
