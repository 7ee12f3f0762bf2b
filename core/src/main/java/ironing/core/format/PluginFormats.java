package ironing.core.format;

import ironing.core.IroningException;
import ironing.core.documents.DocumentFormat;
import ironing.core.game.GameDefinition;
import ironing.core.plugin.OwnFormat;
import ironing.core.plugin.PluginFormat;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The formats that plugins can be read in. Ours and open text are always among them; what a jar
 * brings comes and goes.
 *
 * <p>Threads: any.
 */
public final class PluginFormats {
  private final Map<String, PluginFormat> brought = new ConcurrentHashMap<>();

  /** The format of a game’s plugins; empty where it has none, or one that is not known. */
  public Optional<PluginFormat> of(GameDefinition game) {
    return game.plugins().flatMap(p -> of(game, p));
  }

  private Optional<PluginFormat> of(GameDefinition game, GameDefinition.Plugins plugins) {
    if (plugins.documents().isPresent()) return Optional.of(new DocumentFormat(game));
    if (plugins.format().equals(OwnFormat.ONE.id())) return Optional.of(OwnFormat.ONE);
    return Optional.ofNullable(brought.get(plugins.format()));
  }

  /**
   * @throws IroningException with code {@code format-unknown}
   */
  public PluginFormat require(GameDefinition game) {
    return of(game)
        .orElseThrow(
            () ->
                IroningException.of(
                    "format-unknown",
                    game.plugins().map(GameDefinition.Plugins::format).orElse(game.title()),
                    "Nobody here can read plugins of this format.",
                    "Put the jar of the format into the folder formats of Ironing’s home, and confirm it under Workspaces."));
  }

  /** Throws as {@link #require} for a game whose plugins have an unknown format. */
  public void check(GameDefinition game) {
    if (game.plugins().isPresent()) require(game);
  }

  /** Takes formats in; one of a name that is known takes its place. */
  public void add(Iterable<PluginFormat> formats) {
    for (PluginFormat f : formats) brought.put(f.id(), new BroughtFormat(f));
  }

  /** Gives formats up that a jar has brought. */
  public void remove(Iterable<String> ids) {
    for (String id : ids) brought.remove(id);
  }
}
