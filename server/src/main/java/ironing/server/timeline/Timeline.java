package ironing.server.timeline;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.server.platform.MayBeAbsent;
import ironing.server.timeline.TimelineMapper.ChangeRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The changes of a workspace, and the places in them that one can go back to. */
@Component
class Timeline {
  private final TimelineMapper db;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;

  Timeline(TimelineMapper db, OpenWorkspaces workspaces, Profiles profiles) {
    this.db = db;
    this.workspaces = workspaces;
    this.profiles = profiles;
  }

  /** The newest first. */
  List<ChangeRow> latest(long workspace, long before, int most) {
    return db.latest(workspace, before, most);
  }

  /**
   * A place in the timeline of the profile in use.
   *
   * @param words what it is, for people
   */
  record Place(String words, Arrangement arrangement) {}

  /**
   * @param point a restore point; where it is absent, right after a change
   * @throws IroningException with code {@code not-found}
   */
  Place place(
      OpenWorkspace open, @MayBeAbsent Optional<Long> point, @MayBeAbsent Optional<Long> change) {
    if (point != null && point.isPresent()) {
      return profiles.points(open).stream()
          .filter(p -> p.id() == point.get())
          .map(p -> new Place("the restore point “" + p.name() + "”", p.arrangement()))
          .findFirst()
          .orElseThrow(() -> gone("Restore point " + point.get()));
    }
    long wished = change == null ? 0 : change.orElse(0L);
    ChangeRow row = db.one(open.profile(), wished);
    if (row == null) throw gone("Change " + wished);
    return new Place("after “" + row.said() + "”", workspaces.at(open, wished));
  }

  private static IroningException gone(String thing) {
    return IroningException.of(
        "not-found",
        thing,
        "The timeline of the profile in use has no such place.",
        "Choose one from the list.");
  }
}
