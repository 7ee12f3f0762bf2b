package ironing.server.lists;

import ironing.core.lists.PublishedList.Kind;
import ironing.server.lists.FollowView.EntryView;
import ironing.server.lists.FollowedLists.Followed;
import ironing.server.workspace.OpenWorkspace;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** Where a set is otherwise than the lists that it follows. */
@Component
public class Departures {
  private final FollowedLists lists;

  Departures(FollowedLists lists) {
    this.lists = lists;
  }

  /**
   * The mods that are here otherwise than a list says: those of which the user has said that they
   * shall be, and those of another version or on against it.
   */
  public Set<Long> of(OpenWorkspace open) {
    Set<Long> mods = new TreeSet<>();
    for (Followed list : lists.all(open.workspace(), Kind.MODS))
      for (EntryView e : FollowedModsViews.view(open, list).entries())
        if (e.mod() != null && (e.departure() != null || e.otherVersion() || e.switchTo() != null))
          mods.add(e.mod());
    return mods;
  }
}
