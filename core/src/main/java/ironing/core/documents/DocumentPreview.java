package ironing.core.documents;

import ironing.core.game.DefinitionPreview.Part;
import ironing.core.game.DefinitionPreview.What;
import ironing.core.game.DocumentPlugins;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import ironing.core.plugin.PluginException;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What a definition finds in the documents of a folder, for whoever writes it: its own plugins, how
 * many records of each type, and the first of them.
 *
 * <p>Cost: the documents are read, for {@link #MOST_MS} at the most.
 *
 * @param parts one for each own plugin, and one for each type of record
 * @param remarks what cannot be read, or is odd; the first of it
 * @param whole false where there was more than could be read in the time
 */
public record DocumentPreview(List<Part> parts, List<String> remarks, boolean whole) {
  private static final long MOST_MS = 2_000;
  private static final int FIRST = 3, MOST_REMARKS = 5;

  /** The bytes of a file of the folder. */
  public interface Folder {
    byte[] bytes(String path) throws IOException;
  }

  /**
   * @param paths of the files of the folder, without what is deployed there
   */
  public static DocumentPreview of(GameDefinition game, Collection<String> paths, Folder folder) {
    GameDefinition.Plugins plugins = game.plugins().orElseThrow();
    DocumentPlugins form = plugins.documents().orElseThrow();
    DocumentReader reader = new DocumentReader(game, Shapes.of(game));
    Map<String, Integer> counts = new LinkedHashMap<>();
    Map<String, List<String>> first = new TreeMap<>();
    form.types().forEach(t -> counts.put(t, 0));
    Map<String, String> places = new TreeMap<>();
    List<String> remarks = new ArrayList<>();
    long until = System.nanoTime() + MOST_MS * 1_000_000;
    boolean whole = true;
    for (PluginFiles files : plugins(game, form, paths)) {
      if (System.nanoTime() > until) {
        whole = false;
        break;
      }
      try {
        RecordTable t = reader.read(files, part -> folder.bytes(part.spelled()));
        places.put(t.name(), files.manifest());
        for (int row = 0; row < t.size(); row++) {
          counts.merge(t.type(row), 1, Integer::sum);
          List<String> some = first.computeIfAbsent(t.type(row), x -> new ArrayList<>());
          if (some.size() < FIRST) some.add(String.join(" / ", t.key(row).names()));
        }
        t.warnings().forEach(w -> remark(remarks, t.name() + ": " + w));
      } catch (PluginException e) {
        remark(remarks, files.manifest() + ": " + e.problems().get(0).reason());
      } catch (IOException e) {
        remark(remarks, files.manifest() + ": it cannot be read: " + e.getMessage() + ".");
      }
    }
    List<Part> parts = new ArrayList<>();
    for (String own : plugins.own())
      parts.add(
          new Part(
              What.OWN_PLUGINS,
              own,
              places.containsKey(own) ? 1 : 0,
              places.containsKey(own) ? List.of(places.get(own)) : List.of()));
    counts.forEach(
        (type, n) ->
            parts.add(new Part(What.RECORDS, type, n, first.getOrDefault(type, List.of()))));
    return new DocumentPreview(List.copyOf(parts), List.copyOf(remarks), whole);
  }

  private static void remark(List<String> remarks, String text) {
    if (remarks.size() < MOST_REMARKS) remarks.add(text);
  }

  private static List<PluginFiles> plugins(
      GameDefinition game, DocumentPlugins form, Collection<String> paths) {
    boolean folders = form.is() == DocumentPlugins.Is.FOLDER;
    TreeSet<String> sorted = new TreeSet<>(paths);
    List<PluginFiles> all = new ArrayList<>();
    String outer = null;
    List<String> manifests =
        sorted.stream()
            .filter(game::isPlugin)
            .sorted(Comparator.comparing(PluginFiles::sortedBy).thenComparing(p -> p))
            .toList();
    for (String path : manifests) {
      String at = GamePath.folder(path);
      // a manifest below another's folder is none
      if (folders && outer != null && GamePath.isBelow(at, outer)) continue;
      outer = at;
      List<PluginFiles.Part> parts = new ArrayList<>(List.of(part(path, at)));
      if (folders)
        for (String p : at.isEmpty() ? sorted : sorted.subSet(at + "/", at + "0"))
          if (!p.equals(path) && form.hasRecords(below(p, at))) parts.add(part(p, at));
      all.add(new PluginFiles(path, parts));
    }
    return all;
  }

  private static PluginFiles.Part part(String path, String folder) {
    return new PluginFiles.Part(below(path, folder), 0, path, "");
  }

  private static String below(String path, String folder) {
    return folder.isEmpty() ? path : path.substring(folder.length() + 1);
  }
}
