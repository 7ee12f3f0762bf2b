package ironing.server.trouble;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Fault;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.SignCheck.Seen;
import ironing.core.workspace.Mod;
import ironing.server.testrun.Signs.Told;
import ironing.server.trouble.SearchMapper.TryRow;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What a mod's author has to know of a fault: facts alone, of the mods that are behind it. No
 * folder of the user's is in it, and of other mods only how many were on.
 *
 * @param game with its version
 * @param fault in a sentence
 * @param about the mods that the fault is about, which stayed on in every set; empty for none
 * @param mods that are behind it, in layer order
 * @param parts what in them, as far as a search went on inside; each in words
 * @param plugins of those mods, as they load
 * @param meetings paths that several of them have
 * @param othersOn how many other mods were on when it began
 * @param proof the hashes of what the game could read, with the fault and without
 * @param tries how many sets were tried
 * @param signs of those mods, and whether the last run of the user's has shown them
 * @param comes in how many runs of sets that can show it the fault showed, of how many
 */
record FaultFacts(
    String game,
    String fault,
    List<FaultMod> about,
    List<FaultMod> mods,
    List<String> parts,
    List<String> plugins,
    List<FaultMeeting> meetings,
    int othersOn,
    List<FaultProof> proof,
    int tries,
    List<FaultSign> signs,
    String comes) {
  private static final int MOST_MEETINGS = 20;

  /**
   * A mod that is behind it.
   *
   * @param files how many loose files it has
   */
  record FaultMod(String name, String id, String version, String archive, int files) {}

  /**
   * A path that several of the mods have.
   *
   * @param inPlay whose file the game reads
   * @param sha256 of that file
   */
  record FaultMeeting(String path, String inPlay, String sha256) {}

  /**
   * A sign of a mod.
   *
   * @param mod what it is called
   * @param says the sign, in a sentence
   * @param seen whether it was seen
   */
  record FaultSign(String mod, String says, boolean seen) {}

  /**
   * A set that was tried.
   *
   * @param with which of the mods were in it, in words
   * @param shows whether the fault showed
   * @param picture the hash of all that the game could read
   */
  record FaultProof(String with, boolean shows, String picture) {}

  /**
   * @param open arranged as the search began
   * @param chain the search among mods, and those that went on inside of it
   * @param signs of the mods that it concerns
   */
  static FaultFacts of(OpenWorkspace open, List<Search> chain, List<Told> signs) {
    Search root = chain.get(0);
    List<Long> mods = foundMods(root);
    List<String> parts = new ArrayList<>();
    for (Search s : chain.subList(1, chain.size()))
      if (s.next() instanceof Next.Found f)
        for (Part p : s.parts(f.set())) parts.add(words(open, p));
    return new FaultFacts(
        open.game().title() + open.gameVersion().map(v -> " " + v).orElse(""),
        FaultWords.of(root.fault()),
        named(open, root.searched().always()),
        named(open, mods),
        parts,
        plugins(open, mods),
        meetings(open, mods),
        root.searched().parts().size() - mods.size(),
        proof(open, root),
        root.tries().size(),
        signs.stream().map(s -> new FaultSign(s.mod(), s.says(), s.seen() == Seen.SEEN)).toList(),
        root.tried().shown() + " of " + root.tried().told());
  }

  /** The mods that a search has found, and those that the fault is about. */
  static Set<Long> concerned(Search root) {
    Set<Long> mods = new LinkedHashSet<>(root.searched().always());
    mods.addAll(foundMods(root));
    return mods;
  }

  private static List<Long> foundMods(Search root) {
    return root.next() instanceof Next.Found f
        ? root.parts(f.set()).stream().map(Part::mod).toList()
        : List.of();
  }

  private static List<FaultMod> named(OpenWorkspace open, List<Long> mods) {
    List<FaultMod> named = new ArrayList<>();
    for (Layer l : open.picture().arrangement().layers()) {
      Mod m = open.mods().get(l.mod());
      if (m == null || !mods.contains(m.id())) continue;
      named.add(
          new FaultMod(
              m.card().name(), m.card().id(), m.card().shownVersion(), m.archiveName(), m.files()));
    }
    return named;
  }

  private static String words(OpenWorkspace open, Part p) {
    if (!p.field().isEmpty()) return "field " + p.field() + " of " + p.record();
    if (!p.record().isEmpty()) return "record " + p.record() + " in " + p.path();
    return "file " + p.path() + sha(open, p).map(s -> ", SHA-256 " + s).orElse("");
  }

  private static Optional<String> sha(OpenWorkspace open, Part p) {
    Holdings h = open.picture().holdings();
    int id = h.idOf(p.path());
    int slot = id < 0 ? -1 : h.slotOfMod(id, p.mod());
    return slot < 0 ? Optional.empty() : Optional.of(h.shaAt(slot));
  }

  private static List<String> plugins(OpenWorkspace open, List<Long> mods) {
    List<String> out = new ArrayList<>();
    for (LoadOrder.Entry e : open.picture().loadOrder().entries())
      if (e.on() && mods.contains(e.plugin().mod())) out.add(e.name());
    return out;
  }

  private static List<FaultMeeting> meetings(OpenWorkspace open, List<Long> mods) {
    Standing standing = open.picture().standing();
    Holdings holdings = standing.holdings();
    Set<Integer> paths = new LinkedHashSet<>();
    for (long mod : mods) {
      for (int p : standing.pathsOfMod(mod)) {
        long many =
            standing.holders(p).stream()
                .filter(s -> mods.contains(holdings.holderAt(s).mod()))
                .count();
        if (many > 1) paths.add(p);
      }
    }
    return paths.stream()
        .limit(MOST_MEETINGS)
        .map(
            p -> {
              int slot = standing.inPlay(p);
              return new FaultMeeting(
                  holdings.path(p),
                  open.nameOf(holdings.holderAt(slot).mod()),
                  holdings.shaAt(slot));
            })
        .toList();
  }

  private static List<FaultProof> proof(OpenWorkspace open, Search root) {
    if (!(root.next() instanceof Next.Found f)) return List.of();
    List<FaultProof> out = new ArrayList<>();
    for (TryRow t : root.tries()) {
      BitSet set = Search.set(t.members());
      BitSet more = (BitSet) set.clone();
      more.andNot(f.set());
      boolean shows = t.answer() == Answer.FAILS;
      boolean proves = more.isEmpty() && t.answer().tells() && set.equals(f.set()) == shows;
      if (!proves) continue;
      String with =
          set.isEmpty()
              ? "none of them"
              : root.parts(set).stream()
                  .map(p -> open.nameOf(p.mod()))
                  .collect(Collectors.joining(", "));
      out.add(new FaultProof(with, shows, t.picture()));
    }
    return out;
  }

  /** The same as a text for people. */
  String markdown() {
    StringBuilder out = new StringBuilder();
    out.append("## ").append(fault).append("\n\n");
    out.append("Game: ").append(game).append(". ");
    if (!about.isEmpty())
      out.append("On in every set: ")
          .append(
              about.stream()
                  .map(m -> m.name() + " " + m.version())
                  .collect(Collectors.joining(", ")))
          .append(". ");
    out.append(
        mods.isEmpty()
            ? "No mod was found behind it.\n"
            : "With these mods it shows; without any one of them it does not:\n\n");
    for (FaultMod m : mods) {
      out.append("- **").append(m.name()).append("** ").append(m.version());
      out.append(" (`").append(m.id()).append("`, ").append(m.archive()).append(")\n");
    }
    list(out, "What in them", parts);
    list(out, "Their plugins, as they load", plugins);
    list(
        out,
        "Where they meet",
        meetings.stream()
            .map(m -> "`" + m.path() + "`: the game reads that of " + m.inPlay())
            .toList());
    list(
        out,
        "How it was found",
        proof.stream()
            .map(
                p ->
                    (p.shows() ? "shows" : "does not show")
                        + " with "
                        + p.with()
                        + (p.picture().isEmpty() ? "" : " (`" + p.picture() + "`)"))
            .toList());
    list(
        out,
        "Signs in the last run",
        signs.stream()
            .map(s -> s.mod() + ": " + s.says() + (s.seen() ? " (seen)" : " (not seen)"))
            .toList());
    out.append("\nIt showed in ").append(comes).append(" runs that can show it; ");
    out.append(tries).append(" sets were tried, with ").append(othersOn);
    out.append(" other mods to begin with.\n");
    return out.toString();
  }

  private static void list(StringBuilder out, String title, List<String> items) {
    if (items.isEmpty()) return;
    out.append("\n### ").append(title).append("\n\n");
    for (String i : items) out.append("- ").append(i).append('\n');
  }

  /** Of a fault for a finding: what was seen, with the runs that show it. */
  static String finding(Fault fault, List<FaultProof> proof) {
    StringBuilder out = new StringBuilder(FaultWords.of(fault));
    proof.stream()
        .filter(p -> p.shows() && !p.picture().isEmpty())
        .findFirst()
        .ifPresent(p -> out.append(" Set ").append(p.picture(), 0, 12).append(" shows it"));
    proof.stream()
        .filter(p -> !p.shows() && !p.picture().isEmpty())
        .findFirst()
        .ifPresent(p -> out.append(", set ").append(p.picture(), 0, 12).append(" does not"));
    return out.append('.').toString().replace("..", ".");
  }
}
