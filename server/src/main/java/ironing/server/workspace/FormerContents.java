package ironing.server.workspace;

import java.util.List;
import org.springframework.stereotype.Component;

/**
 * What generated mods held before they were made anew, so that it can come back. Of each mod the
 * last few are kept.
 *
 * <p>All of it inside the caller's transaction.
 */
@Component
public class FormerContents {
  private static final int KEPT_OF_EACH = 5;
  private final FormerContentMapper db;

  FormerContents(FormerContentMapper db) {
    this.db = db;
  }

  /** Sets the content of a mod aside: it has no files from now on. Gives the number of it. */
  public long setAside(long mod) {
    long former = db.add(mod);
    db.addMend(mod, former);
    move(mod, former);
    db.forgetIndex(mod);
    return former;
  }

  private void move(long from, long to) {
    db.moveFiles(from, to);
    db.moveLeftOut(from, to);
  }

  /** Exchanges the content of a mod with one that was set aside. */
  void exchange(long mod, long former) {
    long between = db.add(mod);
    move(mod, between);
    move(former, mod);
    move(between, former);
    db.delete(between);
    db.forgetIndex(mod);
    db.forgetIndex(former);
    db.exchangeMods(mod, former);
    db.exchangeMends(mod, former);
  }

  /** Lets the oldest go. Gives the folders in which their files lay. */
  public List<String> forgetOldest(long mod) {
    List<String> folders = db.foldersBeyond(mod, KEPT_OF_EACH);
    db.deleteBeyond(mod, KEPT_OF_EACH);
    return folders;
  }
}
