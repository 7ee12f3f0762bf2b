package ironing.core.format;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import java.io.IOException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;

/**
 * A jar with formats of plugins, found by {@link ServiceLoader}.
 *
 * <p>Its code can do all that Ironing can: whoever loads one has asked the user first.
 */
public final class FormatJar {
  private FormatJar() {}

  /**
   * The formats of a jar.
   *
   * @param jar stays open as long as its formats are in use
   * @throws IroningException with code {@code format-jar-wrong}
   */
  public static List<PluginFormat> load(Path jar) {
    try {
      URLClassLoader loader =
          new URLClassLoader(new URL[] {jar.toUri().toURL()}, PluginFormat.class.getClassLoader());
      List<PluginFormat> found = new ArrayList<>();
      for (PluginFormat f : ServiceLoader.load(PluginFormat.class, loader)) {
        // what lies beside Ironing's own classes is no format of this jar
        if (f.getClass().getClassLoader() == loader) found.add(checked(jar, f));
      }
      if (found.isEmpty())
        throw wrong(jar, "it names no format in META-INF/services/" + PluginFormat.class.getName());
      return List.copyOf(found);
    } catch (IroningException told) {
      throw told;
    } catch (IOException | ServiceConfigurationError | LinkageError | RuntimeException e) {
      // code of a jar may fail in every way, when it is only asked for its name too
      throw wrong(jar, String.valueOf(e.getMessage()));
    }
  }

  private static PluginFormat checked(Path jar, PluginFormat f) {
    String id = f.id();
    if (id == null || !id.matches(GameDefinition.FORMAT_ID))
      throw wrong(jar, "a format is called “" + id + "”, and not like maker/format@1");
    if (id.equals(Plugin.FORMAT)) throw wrong(jar, "it calls itself " + id + ", which is ours");
    return f;
  }

  private static IroningException wrong(Path jar, String why) {
    return IroningException.of(
        "format-jar-wrong",
        String.valueOf(jar.getFileName()),
        "No format of plugins can be taken from this jar: " + why + ".",
        "Ask its maker for another one, or take it out of the folder formats.");
  }
}
