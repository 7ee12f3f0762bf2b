package ironing.server.layers;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.picture.Arrangement;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.progress.KnownProgress.ModJourney;
import ironing.server.workspace.OpenWorkspace;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** What {@link LayersController} gives and takes, and how it is made of what the core says. */
final class LayersViews {
  private LayersViews() {}

  /**
   * How the files of a mod stand, packed ones among them.
   *
   * @param inPlay in play, and nobody else has them
   * @param covering in play, and covering another
   * @param contributing covered by a combined file that it went into
   * @param twin covered, with the same content as the one in play
   */
  record Bar(int inPlay, int covering, int covered, int contributing, int twin) {
    static final Bar NONE = new Bar(0, 0, 0, 0, 0);

    Bar with(int contributing) {
      return new Bar(inPlay, covering, covered - contributing, contributing, twin);
    }
  }

  /**
   * @param position 1 is the lowest
   * @param cardId the id on its card; several versions of a mod share it
   * @param kind archive, or what kind of mend it is
   * @param section 0 for none
   * @param kept whether a suggestion must leave it where it is
   * @param contested files of it that others bring too
   * @param heldBack paths that the user keeps out of the game
   * @param broughtAt when this version came into the library
   * @param files loose ones
   */
  record LayerView(
      long mod,
      int position,
      boolean on,
      long section,
      boolean kept,
      int contested,
      int heldBack,
      List<String> tags,
      String broughtAt,
      String name,
      String version,
      String cardId,
      String kind,
      int files,
      long sizeBytes,
      List<String> plugins,
      Bar bar,
      ModJourney journey) {
    /** The same at another place. */
    LayerView at(int position) {
      return new LayerView(
          mod, position, on, section, kept, contested, heldBack, tags, broughtAt, name, version,
          cardId, kind, files, sizeBytes, plugins, bar, journey);
    }
  }

  /** Layer 0: the unmodded game. */
  record GameLayer(String title, String version, int files, long sizeBytes, Bar bar) {}

  /** A named stretch of neighbouring layers. */
  record SectionView(long id, String name) {}

  /**
   * @param layers from the lowest
   */
  record LayersView(
      long revision, GameLayer game, List<LayerView> layers, List<SectionView> sections) {}

  /**
   * What is not as it was in a list of layers.
   *
   * @param sections all of them
   * @param layers those that are new or not as they were, their places aside
   * @param order what is otherwise in the order of the layers; absent where nothing is
   */
  record LayersChanges(
      long revision,
      GameLayer game,
      List<SectionView> sections,
      List<LayerView> layers,
      @MayBeAbsent LayerStretch order) {}

  /**
   * A stretch of the order that another takes the place of.
   *
   * @param from how many layers below it stay as they are
   * @param gone how many layers the stretch had
   * @param mods those that are there now, from the lowest
   */
  record LayerStretch(int from, int gone, List<Long> mods) {}

  /**
   * @param tag by which to ask what has changed since
   * @param whole all of it; absent where only the changes are told
   */
  record LayersSince(long tag, @MayBeAbsent LayersView whole, @MayBeAbsent LayersChanges changes) {}

  record Related(long mod, String name, int position, int paths) {}

  /**
   * Whom a mod covers and who covers it.
   *
   * @param reach files of it that are in play
   * @param covers most paths first
   */
  record RelationsView(
      long mod, Bar bar, int reach, List<Related> covers, List<Related> coveredBy) {}

  /**
   * @param total of all such paths; {@code paths} holds the first of them
   */
  record ModPaths(int total, List<PathView> paths) {}

  record MoveRequest(List<Long> mods, int to) {
    MoveRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record SwitchRequest(List<Long> mods, boolean on) {
    SwitchRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record KeepRequest(List<Long> mods, boolean kept) {
    KeepRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record LayerWish(long mod, boolean on) {}

  /**
   * @param layers all of them, from the lowest
   */
  record OrderRequest(List<LayerWish> layers) {
    OrderRequest {
      Objects.requireNonNull(layers, "layers");
    }
  }

  static GameLayer game(OpenWorkspace open, Map<Long, Bar> bars) {
    Bar bar = bars.getOrDefault(Holdings.GAME, Bar.NONE);
    String version = open.gameVersion().orElse("");
    return new GameLayer(
        open.game().title(), version, open.own().files(), open.own().sizeBytes(), bar);
  }

  static List<Related> related(OpenWorkspace open, Map<Long, Integer> paths) {
    Map<Long, Integer> positions = new HashMap<>();
    for (Arrangement.Layer l : open.picture().arrangement().layers())
      positions.put(l.mod(), positions.size() + 1);
    return paths.entrySet().stream()
        .map(
            e ->
                new Related(
                    e.getKey(),
                    open.nameOf(e.getKey()),
                    positions.getOrDefault(e.getKey(), 0),
                    e.getValue()))
        .sorted((a, b) -> b.paths() - a.paths())
        .toList();
  }

  static void requireMod(OpenWorkspace open, long mod) {
    if (mod != Holdings.GAME) open.required(mod);
  }

  /** How the files of each mod stand. */
  static Map<Long, Bar> bars(OpenWorkspace open, Map<Long, Integer> contributed) {
    Standing standing = open.picture().standing();
    Map<Long, Bar> bars = new HashMap<>();
    for (Holdings.Source s : open.picture().holdings().sources()) {
      Bar bar =
          new Bar(
              standing.count(s.id(), Way.IN_PLAY),
              standing.count(s.id(), Way.COVERING),
              standing.count(s.id(), Way.COVERED),
              0,
              standing.count(s.id(), Way.TWIN));
      bars.merge(
          s.mod(),
          bar,
          (a, b) ->
              new Bar(
                  a.inPlay() + b.inPlay(),
                  a.covering() + b.covering(),
                  a.covered() + b.covered(),
                  0,
                  a.twin() + b.twin()));
    }
    contributed.forEach((mod, files) -> bars.computeIfPresent(mod, (m, bar) -> bar.with(files)));
    return bars;
  }
}
