package ironing.server.tools;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.LaidOut;
import ironing.core.game.GameFolder;
import ironing.core.layers.Holdings;
import ironing.core.path.PathPattern;
import ironing.server.deploy.StrayOutputs;
import ironing.server.mends.ToolOutput;
import ironing.server.tools.ToolMapper.ToolRunRow;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Files in the game folder that nobody deployed, and that are a known tool's by their paths. */
@Component
public class ToolStrays implements StrayOutputs {
  private final Tools tools;
  private final ToolOutput outputs;
  private final ToolMapper db;

  ToolStrays(Tools tools, ToolOutput outputs, ToolMapper db) {
    this.tools = tools;
    this.outputs = outputs;
    this.db = db;
  }

  // what a run left that failed or was stopped may be half of a file
  private List<Tool> trusted(long workspace) {
    Set<Long> failed = new HashSet<>();
    for (ToolRunRow r : db.last(workspace))
      if (r.exitCode() == null || r.exitCode() != 0) failed.add(r.toolId());
    List<Tool> all = new ArrayList<>(tools.all(workspace));
    all.removeIf(t -> t.writes().isEmpty() || failed.contains(t.id()));
    return all;
  }

  /** By a stray's path the tool to whose output it goes; empty for none. */
  public Function<String, Optional<String>> owners(OpenWorkspace open) {
    Map<String, List<PathPattern>> writes = new LinkedHashMap<>();
    for (Tool t : trusted(open.workspace())) writes.put(t.name(), writes(open, t));
    return path ->
        writes.entrySet().stream()
            .filter(w -> open.game().anyMatches(w.getValue(), path))
            .map(Map.Entry::getKey)
            .findFirst();
  }

  private static List<PathPattern> writes(OpenWorkspace open, Tool t) {
    return PathPattern.all(t.writes(), open.game().pathCase());
  }

  @Override
  public Map<String, String> takeIn(OpenWorkspace open, LaidOut note) {
    List<Tool> trusted = trusted(open.workspace());
    Map<String, String> sums = new TreeMap<>();
    if (trusted.isEmpty()) return sums;
    Set<String> there = GameFolder.glance(open.roots()).keySet();
    try {
      for (Tool t : trusted) {
        List<PathPattern> writes = writes(open, t);
        Map<String, Path> found = new TreeMap<>();
        for (String path : there) {
          if (sums.containsKey(path)
              || !open.game().anyMatches(writes, path)
              || !isStray(open, note, path)) continue;
          Path file = open.at(path);
          String sha256 = ContentHash.of(file);
          // the user wants it to stay as it is, while it is this
          if (sha256.equals(db.leftAlone(open.workspace(), path))) continue;
          found.put(path, file);
          sums.put(path, sha256);
        }
        if (found.isEmpty()) continue;
        ToolOutput.Read read = outputs.read(open, t.id(), t.reads());
        outputs.take(open, t.id(), t.name(), t.reads(), read, found, Set.of());
      }
      return sums;
    } catch (IOException e) {
      throw DiskTrouble.of(open.roots(), e);
    }
  }

  private static boolean isStray(OpenWorkspace open, LaidOut note, String path) {
    if (note.files().containsKey(path) || open.game().isProtected(path)) return false;
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(path);
    return id < 0 || holdings.slotOfMod(id, Holdings.GAME) < 0;
  }
}
