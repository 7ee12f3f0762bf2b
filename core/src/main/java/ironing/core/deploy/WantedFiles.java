package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.ListText;
import ironing.core.path.PathPattern;
import ironing.core.picture.Picture;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.LongFunction;

/**
 * From a picture to the files that have to lie in the game folder for it: every loose file of a mod
 * that is in play, the plugin list, and a copy of each of the game's own files that the game or a
 * tool writes to, so that its original can come back byte for byte.
 *
 * <p>Cost: one pass over all paths.
 */
public final class WantedFiles {
  private WantedFiles() {}

  /**
   * A profile's own copy of a settings file.
   *
   * @param path in the game folder
   */
  public record Setting(String path, byte[] content) {}

  /**
   * @param nameOf what to call a mod, for people
   * @param settings of the profile; each stands before whatever the picture has at its path
   * @param byTools what tools write to
   * @return in path order; empty when no mod has anything in play
   */
  public static List<Wanted> of(
      Picture picture,
      LongFunction<String> nameOf,
      List<Setting> settings,
      List<PathPattern> byTools) {
    return of(picture, nameOf, settings, byTools, false);
  }

  /**
   * The same for a set that is tried: where no mod has anything in play, what the game writes to is
   * copied all the same, so that the unmodded game may be tried and its files stay as they were.
   */
  public static List<Wanted> tried(
      Picture picture,
      LongFunction<String> nameOf,
      List<Setting> settings,
      List<PathPattern> byTools) {
    return of(picture, nameOf, settings, byTools, true);
  }

  private static List<Wanted> of(
      Picture picture,
      LongFunction<String> nameOf,
      List<Setting> settings,
      List<PathPattern> byTools,
      boolean unmoddedToo) {
    GameDefinition game = picture.game();
    Standing standing = picture.standing();
    Holdings holdings = picture.holdings();
    Map<String, Wanted> ofMods = new TreeMap<>(), guards = new TreeMap<>();
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = standing.inPlay(p);
      if (slot < 0 || picture.switchedOff().get(p)) continue;
      Optional<String> pack = holdings.holderAt(slot).pack();
      // a pack is read in place, but for what a ruling puts above loose files
      if (pack.isPresent() && !standing.isRuled(p)) continue;
      long mod = holdings.holderAt(slot).mod();
      Writer writer = writer(game, byTools, holdings.path(p));
      if (mod == Holdings.GAME && writer == Writer.NOBODY && pack.isEmpty()) continue;
      String path = picture.spelling().of(p);
      if (game.isProtected(path)) continue;
      Wanted w =
          new Wanted(
              path,
              holdings.shaAt(slot),
              holdings.sizeAt(slot),
              mod,
              nameOf.apply(mod),
              writer,
              pack.isPresent()
                  ? new Content.Packed(pack.get(), game.nameInPack(holdings.spellingAt(slot)))
                  : new Content.File(holdings.spellingAt(slot)));
      (mod == Holdings.GAME && pack.isEmpty() ? guards : ofMods).put(path, w);
    }
    if (ofMods.isEmpty() && !unmoddedToo) return List.of();
    ofMods.putAll(guards);
    for (Setting s : settings) {
      int known = holdings.idOf(s.path());
      boolean inPlay = known >= 0 && standing.inPlay(known) >= 0;
      String path = inPlay ? picture.spelling().of(known) : s.path();
      if (!game.isProtected(path)) ofMods.put(path, settingsFile(path, s.content()));
    }
    for (Wanted w : ordering(picture)) ofMods.put(w.path(), w);
    return List.copyOf(ofMods.values());
  }

  private static Writer writer(GameDefinition game, List<PathPattern> byTools, String path) {
    if (game.isWritable(path)) return Writer.GAME;
    return game.anyMatches(byTools, path) ? Writer.TOOL : Writer.NOBODY;
  }

  /** The plugin list of a game that has mods; empty when only the game's own plugins are there. */
  public static Optional<Wanted> pluginList(Picture picture) {
    return picture
        .game()
        .plugins()
        .flatMap(GameDefinition.Plugins::list)
        .filter(list -> picture.loadOrder().entries().stream().anyMatch(e -> !e.own()))
        .map(list -> listFile(list, picture));
  }

  /** What tells the game the load order: the list, or the plugins with their numbers in them. */
  static List<Wanted> ordering(Picture picture) {
    List<Wanted> all = new ArrayList<>(OrderNumbers.of(picture));
    pluginList(picture).ifPresent(all::add);
    return all;
  }

  /** A file that is made for a set that is tried, at a path that nobody holds. */
  public static Wanted made(String path, byte[] content) {
    return new Wanted(
        path,
        ContentHash.of(content),
        content.length,
        Holdings.GAME,
        "Ironing",
        Writer.NOBODY,
        new Content.Text(content));
  }

  static Wanted settingsFile(String path, byte[] content) {
    return new Wanted(
        path,
        ContentHash.of(content),
        content.length,
        Holdings.GAME,
        "the profile’s own settings",
        Writer.GAME,
        new Content.Text(content));
  }

  private static Wanted listFile(GameDefinition.ListFile list, Picture picture) {
    // of a list that is lines the file before says nothing
    byte[] text =
        ListText.bytes(
            list, picture.loadOrder(), list.inside().flatMap(i -> picture.own(list.file())));
    Content content = new Content.Text(text);
    String sha256 = ContentHash.of(text);
    return new Wanted(
        list.file(), sha256, text.length, Holdings.GAME, "Ironing", Writer.NOBODY, content);
  }
}
