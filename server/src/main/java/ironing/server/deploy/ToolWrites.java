package ironing.server.deploy;

import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.util.List;

/** What tools write to in a game folder: such files are deployed as copies, never as links. */
public interface ToolWrites {
  /** Patterns on game paths. */
  List<PathPattern> written(long workspace, PathCase pathCase);
}
