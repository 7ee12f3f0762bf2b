package ironing.server.overlaps;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.Plugin.Header;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Single paths of one state of a workspace, as every list of paths shows them. */
public final class PathViews {
  private final OpenWorkspace open;
  private final Map<Long, Integer> positions = new HashMap<>();
  private final Map<String, String> namedBy = new HashMap<>();

  public PathViews(OpenWorkspace open) {
    this.open = open;
    int position = 0;
    for (Arrangement.Layer l : open.picture().arrangement().layers()) {
      positions.put(l.mod(), ++position);
    }
    for (Entry e : open.picture().loadOrder().active()) {
      for (String pack : e.plugin().header().map(Header::packs).orElse(List.of())) {
        namedBy.put(PathCase.fold(pack), e.name());
      }
    }
  }

  /**
   * One file that stands at a path.
   *
   * @param mod 0 for the game
   * @param position the layer's number, 0 for the game
   * @param pack the pack that it lies in, absent for a loose file
   * @param way how it stands: in play, in play and covering, covered, or the same as the one in
   *     play
   */
  public record Holder(
      long mod,
      String name,
      int position,
      @MayBeAbsent String pack,
      String sha256,
      long sizeBytes,
      Way way) {}

  /**
   * A path with all who hold it.
   *
   * @param path in the spelling that is deployed
   * @param why why the first one is in play
   * @param ruled whether a ruling decides it
   * @param holders the one in play first, then downwards
   */
  public record PathView(String path, String why, boolean ruled, List<Holder> holders) {}

  /** The path of that number; somebody stands there. */
  public PathView of(int path) {
    Standing standing = open.picture().standing();
    Holdings holdings = open.picture().holdings();
    List<Holder> holders = new ArrayList<>();
    for (int slot : standing.holders(path)) {
      Holdings.Source source = holdings.holderAt(slot);
      holders.add(
          new Holder(
              source.mod(),
              open.nameOf(source.mod()),
              positions.getOrDefault(source.mod(), 0),
              source.pack().orElse(null),
              holdings.shaAt(slot),
              holdings.sizeAt(slot),
              standing.way(path, slot)));
    }
    boolean ruled = standing.isRuled(path);
    return new PathView(
        open.picture().spelling().of(path),
        (ruled ? whyRuled(path, holders) : why(holders)) + unread(path, holders.get(0)),
        ruled,
        List.copyOf(holders));
  }

  /** Of a pack that lies there and is not read, because of which plugins; empty for all else. */
  private String unread(int path, Holder top) {
    String file = open.picture().holdings().path(path);
    boolean isPack =
        top.pack() == null
            && open.picture().holdings().sources().stream()
                .anyMatch(s -> s.mod() == top.mod() && s.pack().filter(file::equals).isPresent());
    if (!isPack) return "";
    String name = PathCase.fold(GamePath.name(file));
    List<String> off = new ArrayList<>();
    for (LoadOrder.Entry e : open.picture().loadOrder().entries()) {
      boolean names =
          e.plugin().header().map(Header::packs).orElse(List.of()).stream()
              .anyMatch(p -> PathCase.fold(p).equals(name));
      if (names && e.on()) return "";
      if (names) off.add(e.name());
    }
    if (off.isEmpty()) return "";
    return " The game does not read what is in it: "
        + String.join(" and ", off)
        + (off.size() == 1
            ? ", which names it, is switched off."
            : ", which name it, are switched off.");
  }

  private String whyRuled(int path, List<Holder> holders) {
    String loose = holders.get(0).pack() == null ? "" : " It is laid out as a loose copy.";
    return open.picture().standing().aboveByOrder(path).isEmpty()
        ? "You ruled so; the layers would say the same." + loose
        : "You ruled so, whatever the layers say." + loose;
  }

  private String why(List<Holder> holders) {
    Holder top = holders.get(0);
    if (holders.size() == 1) {
      return top.mod() == Holdings.GAME ? "Only the game has it." : "Only this mod has it.";
    }
    Holder next = holders.get(1);
    if (top.pack() == null && next.pack() != null) {
      return "A loose file stands before one in a pack, whatever the layers.";
    }
    if (top.pack() != null) return whyPacked(top, next);
    return "Layer " + top.position() + " stands above layer " + next.position() + ".";
  }

  private String whyPacked(Holder top, Holder next) {
    String plugin = namedBy.get(PathCase.fold(GamePath.name(top.pack())));
    String other = namedBy.get(PathCase.fold(GamePath.name(next.pack())));
    if (plugin == null) {
      return next.mod() == Holdings.GAME
          ? "The game’s own packs stand lowest."
          : "No plugin names either pack, so the layers decide.";
    }
    if (other == null) return plugin + " names its pack, and no plugin names the other.";
    return plugin.equals(other)
        ? plugin + " names its pack behind the other."
        : plugin + " names its pack, and loads after " + other + ".";
  }
}
