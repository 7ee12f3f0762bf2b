package ironing.server.loadorder;

import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderCheck.Code;
import ironing.core.loadorder.LoadOrderCheck.Trouble;
import ironing.core.path.PathCase;
import ironing.core.picture.Picture;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Fix;
import ironing.server.workspace.OpenWorkspace;
import java.util.List;
import java.util.Optional;

/** What is wrong with the load order of a workspace, each with the act that remedies it. */
public final class Troubles {
  private Troubles() {}

  /**
   * @param other the master, the pack or the range that it is about
   * @param stops whether the game would stop over it
   */
  public record TroubleView(
      Code code,
      String plugin,
      String other,
      String text,
      String remedy,
      boolean stops,
      @MayBeAbsent Fix fix) {}

  public static List<TroubleView> of(OpenWorkspace open) {
    Picture p = open.picture();
    return LoadOrderCheck.troubles(p.game(), open.gameVersion(), p.loadOrder(), p::packInPlay)
        .stream()
        .map(t -> view(open, t))
        .toList();
  }

  private static TroubleView view(OpenWorkspace open, Trouble t) {
    Optional<Fix> fix = fix(open, t);
    String remedy = t.remedy();
    if (t.code() == Code.MASTER_MISSING
        && fix.filter(f -> f.kind() == Fix.Kind.SWITCH_MOD_ON).isPresent()) {
      remedy = fix.get().name() + " in your library has it. Switch it on.";
    }
    return new TroubleView(
        t.code(), t.plugin(), t.other(), t.text(), remedy, t.stops(), fix.orElse(null));
  }

  private static Optional<Fix> fix(OpenWorkspace open, Trouble t) {
    switch (t.code()) {
      case MASTER_LATE:
        return Optional.of(new Fix(Fix.Kind.TAKE_PROPOSAL, null, null, "the proposal"));
      case MASTER_OFF:
        return Optional.of(new Fix(Fix.Kind.SWITCH_PLUGIN_ON, null, t.other(), t.other()));
      case MASTER_MISSING:
        return whoHas(open, t.other())
            .or(
                () ->
                    Optional.of(new Fix(Fix.Kind.SWITCH_PLUGIN_OFF, null, t.plugin(), t.plugin())));
      case UNDECODABLE, WRONG_GAME_VERSION, NO_SLOT:
        return Optional.of(new Fix(Fix.Kind.SWITCH_PLUGIN_OFF, null, t.plugin(), t.plugin()));
      case SAME_NAME:
        return open.picture().loadOrder().doubled().stream()
            .filter(f -> f.name().equals(t.other()) && f.mod() != Holdings.GAME)
            .findFirst()
            .map(f -> new Fix(Fix.Kind.SWITCH_MOD_OFF, f.mod(), null, open.nameOf(f.mod())));
      default:
        return Optional.empty();
    }
  }

  /** A mod in the library that brings a plugin and is off. */
  static Optional<Fix> whoHas(OpenWorkspace open, String plugin) {
    if (open.game().hasDocumentPlugins())
      return open.mods().values().stream()
          .filter(m -> open.value().inUse(m.id()))
          .filter(
              m ->
                  m.plugins().stream()
                      .anyMatch(p -> PathCase.fold(p).equals(PathCase.fold(plugin))))
          .findFirst()
          .map(m -> new Fix(Fix.Kind.SWITCH_MOD_ON, m.id(), null, open.nameOf(m.id())));
    Holdings holdings = open.picture().holdings();
    int path = holdings.idOf(open.game().pluginPath(plugin));
    if (path < 0) return Optional.empty();
    return holdings.sourcesOf(path).stream()
        .filter(s -> s.pack().isEmpty() && s.mod() != Holdings.GAME)
        .findFirst()
        .map(s -> new Fix(Fix.Kind.SWITCH_MOD_ON, s.mod(), null, open.nameOf(s.mod())));
  }
}
