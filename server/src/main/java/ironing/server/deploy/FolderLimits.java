package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.core.deploy.LaidOut;
import ironing.core.layers.Holdings;
import ironing.core.limits.LimitUse;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Keeps a deployment within what the game can take. */
final class FolderLimits {
  private FolderLimits() {}

  /**
   * @param note of what is laid out
   * @throws IroningException with code {@code limit-passed}, unless the folder is past the limit
   *     already and does not get worse
   */
  static void require(OpenWorkspace open, LaidOut note) {
    for (LimitUse u : LimitUse.of(open.picture())) {
      if (u.state() != LimitUse.State.PAST) continue;
      if (u.used() <= inFolder(open, u, note)) continue;
      throw IroningException.of(
          "limit-passed",
          open.title(),
          "There are "
              + u.words()
              + "."
              + (u.limit().says().isEmpty() ? "" : " " + u.limit().says() + "."),
          "Switch some off; most of them are of " + u.takers(open::nameOf) + ".");
    }
  }

  private static long inFolder(OpenWorkspace open, LimitUse u, LaidOut note) {
    Map<String, LimitUse.LaidFile> laid = new TreeMap<>();
    if (note.files().isEmpty()) return 0;
    for (LaidOut.Item i : note.files().values())
      laid.put(
          open.game().pathCase().key(i.path()),
          new LimitUse.LaidFile(i.path(), i.mod(), size(open, i.path())));
    List<LimitUse.LaidFile> own = new ArrayList<>();
    Holdings holdings = open.picture().holdings();
    for (Holdings.Source s : holdings.sourcesOfMod(Holdings.GAME)) {
      if (s.pack().isPresent()) continue;
      for (int p : holdings.pathsOf(s.id()))
        if (!laid.containsKey(open.game().pathCase().key(holdings.path(p))))
          own.add(
              new LimitUse.LaidFile(
                  holdings.path(p), Holdings.GAME, holdings.sizeAt(holdings.slotOf(p, s.id()))));
    }
    return LimitUse.inFolder(open.game(), u.limit(), laid, own);
  }

  private static long size(OpenWorkspace open, String path) {
    try {
      return Files.size(open.at(path));
    } catch (IOException gone) {
      return 0;
    }
  }
}
