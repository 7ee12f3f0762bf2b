package ironing.core.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Where each file of an archive goes in the game, from where its content begins on. */
public final class ContentLayout {
  public static final String CARD = "mod-card.yaml";
  public static final String FITTING = "fitting.yaml";
  // names that Windows keeps for devices, and characters that it cannot write (Microsoft, “Naming
  // Files, Paths, and Namespaces”); from memory
  private static final Pattern NOT_FOR_WINDOWS =
      Pattern.compile("(?i)(con|prn|aux|nul|com[0-9]|lpt[0-9])(\\..*)?|.*[<>:\"|?*].*|.*[. ]");

  /** A file that goes into the game: where it lies in the archive and where in the game folder. */
  public record Placed(String entry, String gamePath, String mount) {}

  /**
   * A file that stays out, and why.
   *
   * @param chosen the user left it out, so that letting it in again is one step
   */
  public record LeftOut(String entry, String reason, boolean chosen) {}

  /** What reading an archive's shape came to. */
  public sealed interface Outcome {
    /**
     * @param reason why the content begins at {@code root} ("" is the archive's top)
     */
    record Laid(String root, String reason, List<Placed> placed, List<LeftOut> leftOut)
        implements Outcome {}

    /**
     * Several folders could be where a mod begins, side by side or in one another: the user picks.
     */
    record Several(List<String> roots) implements Outcome {}

    /** Nothing in it is held by any mount of this game. */
    record Nothing() implements Outcome {}
  }

  private final Placing placing;
  private final GameDefinition game;
  private final Choices choices;
  private final List<LeftOut> leftOut = new ArrayList<>();
  // by the key of the game path; the order is that of the entries
  private final Map<String, Placed> placed = new LinkedHashMap<>();
  private Optional<PluginFolders> folders = Optional.empty();

  private ContentLayout(Placing placing, Choices choices) {
    this.placing = placing;
    this.game = placing.game();
    this.choices = choices;
  }

  /** As the archive itself says. Cost: entries times depth. Pure. */
  public static Outcome of(Placing placing, Collection<String> entries) {
    return of(placing, entries, Choices.NONE);
  }

  /** As the user chose, and as the archive says where nothing was chosen. */
  public static Outcome of(Placing placing, Collection<String> entries, Choices choices) {
    Outcome begins = begins(placing, entries, choices);
    if (!(begins instanceof Outcome.Laid at)) return begins;
    ContentLayout layout = new ContentLayout(placing, choices);
    layout.folders = PluginFolders.of(placing.game(), entries, at.root(), placing.top());
    for (String entry : entries) layout.plain(at.root(), entry);
    return layout.outcome(at);
  }

  /**
   * As the answers to a fitting say.
   *
   * @param moves of the answers, the later ones winning
   * @throws IroningException with code {@code fitting-wrong}, naming what the fitting speaks of and
   *     the archive or the game does not have
   */
  public static Outcome fitted(
      Placing placing, Collection<String> entries, Choices choices, List<Fitting.Move> moves) {
    Outcome begins = begins(placing, entries, choices);
    if (!(begins instanceof Outcome.Laid at)) return begins;
    ContentLayout layout = new ContentLayout(placing, choices);
    layout.moved(at.root(), entries, moves);
    return layout.outcome(at);
  }

  /** Where the content begins, with nothing laid out yet. */
  public static Outcome begins(Placing placing, Collection<String> entries, Choices choices) {
    if (choices.root().isPresent()) return begin(choices.root().get(), "you chose this folder");
    ContentStart.Found found = ContentStart.of(placing, entries);
    if (found.roots().size() > 1) return new Outcome.Several(found.roots());
    if (found.roots().size() == 1) return begin(found.roots().get(0), found.reason());
    return new Outcome.Nothing();
  }

  private static Outcome.Laid begin(String root, String reason) {
    return new Outcome.Laid(root, reason, List.of(), List.of());
  }

  private Outcome outcome(Outcome.Laid at) {
    if (placed.isEmpty()) return new Outcome.Nothing();
    // what a fitting brings to two places may lose one of them, or both
    Set<String> told = new HashSet<>();
    placed.values().forEach(p -> told.add(p.entry()));
    List<LeftOut> out = leftOut.stream().filter(l -> told.add(l.entry())).toList();
    return new Outcome.Laid(at.root(), at.reason(), List.copyOf(placed.values()), out);
  }

  private void plain(String root, String entry) {
    Optional<String> relative = candidate(root, entry);
    if (relative.isEmpty()) return;
    Optional<Placed> place = sent(entry).or(() -> place(entry, relative.get()));
    if (place.isEmpty()) out(entry, "No part of the game reads such a file at this place.");
    else put(place.get(), false);
  }

  /** The entry relative to the root, when it is not out for another reason already. */
  private Optional<String> candidate(String root, String entry) {
    String prefix = root.isEmpty() ? "" : root + "/";
    boolean sent = choices.sentBy(entry).isPresent();
    String relative = entry.startsWith(prefix) ? entry.substring(prefix.length()) : null;
    if (choices.leavesOut(entry)) leftOut.add(new LeftOut(entry, "You left it out.", true));
    else if (relative == null && !sent)
      out(entry, "It lies outside the folder where the mod begins.");
    else if (CARD.equals(relative) || FITTING.equals(relative))
      out(entry, "It is for Ironing, not for the game.");
    else return Optional.of(relative == null ? entry : relative);
    return Optional.empty();
  }

  /**
   * An entry below the folder of the fitting.
   *
   * @param key of the relative path, as the game compares them; worked out once for all moves
   */
  private record Below(String entry, String relative, String key) {}

  private void moved(String root, Collection<String> entries, List<Fitting.Move> moves) {
    String prefix = root.isEmpty() ? "" : root + "/";
    Set<String> candidates = new LinkedHashSet<>(), settled = new HashSet<>();
    List<Below> below = new ArrayList<>();
    for (String entry : entries) {
      if (candidate(root, entry).isPresent()) candidates.add(entry);
      if (!entry.startsWith(prefix)) continue;
      String relative = entry.substring(prefix.length());
      below.add(new Below(entry, relative, game.pathCase().key(relative)));
    }
    for (String entry : candidates)
      sent(entry)
          .ifPresent(
              p -> {
                put(p, false);
                settled.add(entry);
              });
    Set<String> sent = Set.copyOf(settled), named = new HashSet<>();
    List<Problem> wrong = new ArrayList<>();
    for (Fitting.Move m : moves) {
      Optional<GameDefinition.Mount> mount = m.mount().flatMap(game::mount);
      if (m.mount().isPresent() && mount.isEmpty()) {
        wrong.add(wrong(m, "mount: " + m.mount().get(), "The game has no such mount."));
        continue;
      }
      String from = game.pathCase().key(m.from());
      boolean any = false;
      for (Below b : below) {
        Optional<String> to = target(m, from, b);
        if (to.isEmpty()) continue;
        any = true;
        named.add(b.entry());
        if (!candidates.contains(b.entry()) || sent.contains(b.entry())) continue;
        mount
            .map(at -> new Placed(b.entry(), game.gamePath(at, to.get()), at.id()))
            .or(() -> place(b.entry(), to.get()))
            .ifPresent(
                p -> {
                  put(p, true);
                  settled.add(b.entry());
                });
      }
      if (!any)
        wrong.add(wrong(m, "from: " + m.from(), "The archive holds no such file or folder."));
    }
    if (!wrong.isEmpty()) throw new IroningException(wrong);
    for (String entry : candidates) {
      if (settled.contains(entry)) continue;
      out(
          entry,
          named.contains(entry)
              ? "No part of the game reads such a file at this place."
              : "It belongs to no answer that was taken.");
    }
  }

  private static Problem wrong(Fitting.Move at, String thing, String reason) {
    return new Problem(
        "fitting-wrong",
        FITTING + at.place() + ": " + thing,
        reason,
        "Tell its author. To install it all the same, skip the questions.");
  }

  /** Where below its mount a move brings an entry; empty when it is not about that one. */
  private static Optional<String> target(Fitting.Move m, String from, Below b) {
    boolean into = m.to().isEmpty() || m.to().endsWith("/");
    if (!from.isEmpty() && !from.endsWith("/")) {
      if (!b.key().equals(from)) return Optional.empty();
      return Optional.of(into ? m.to() + GamePath.name(b.relative()) : m.to());
    }
    if (!b.key().startsWith(from)) return Optional.empty();
    // by steps, not by letters: two spellings of one folder may differ in length
    String rest = b.relative();
    for (long steps = from.chars().filter(c -> c == '/').count(); steps > 0; steps--)
      rest = rest.substring(rest.indexOf('/') + 1);
    if (rest.equals(CARD) || rest.equals(FITTING)) return Optional.empty();
    return Optional.of((into ? m.to() : m.to() + "/") + rest);
  }

  /** Where the user sent an entry, if they did. */
  private Optional<Placed> sent(String entry) {
    Optional<String> by = choices.sentBy(entry);
    if (by.isEmpty()) return Optional.empty();
    String rest =
        by.get().endsWith("/") ? entry.substring(by.get().length()) : GamePath.name(entry);
    return game.mount(choices.sendTo().get(by.get()))
        .map(m -> new Placed(entry, game.gamePath(m, rest), m.id()));
  }

  private void put(Placed p, boolean laterWins) {
    if (game.isProtected(p.gamePath())) {
      out(p.entry(), "The game’s definition protects this place.");
      return;
    }
    boolean chosen = choices.sentBy(p.entry()).isPresent();
    Optional<String> odd = chosen ? Optional.empty() : notForWindows(p.gamePath());
    if (odd.isPresent()) {
      out(
          p.entry(),
          "Windows, for which this game is made, cannot hold a file named “" + odd.get() + "”.");
      return;
    }
    String key = game.pathCase().key(p.gamePath());
    Placed earlier = placed.get(key);
    if (earlier == null || laterWins) placed.put(key, p);
    Placed loser = laterWins ? earlier : p;
    if (earlier != null)
      out(loser.entry(), "“" + (laterWins ? p : earlier).entry() + "” goes to the same place.");
  }

  // a game that does not tell case apart is at home on Windows
  private Optional<String> notForWindows(String path) {
    if (game.pathCase() == PathCase.SENSITIVE) return Optional.empty();
    for (String step : path.split("/", -1))
      if (NOT_FOR_WINDOWS.matcher(step).matches()) return Optional.of(step);
    return Optional.empty();
  }

  private void out(String entry, String reason) {
    leftOut.add(new LeftOut(entry, reason, false));
  }

  private Optional<Placed> place(String entry, String relative) {
    return folders
        .flatMap(f -> f.place(relative))
        .or(() -> placing.of(relative))
        .map(p -> new Placed(entry, p.gamePath(), p.mount()));
  }
}
