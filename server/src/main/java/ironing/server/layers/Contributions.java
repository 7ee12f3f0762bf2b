package ironing.server.layers;

import ironing.server.workspace.OpenWorkspace;
import java.util.Map;

/** What reaches the game by being a part of something else; told by whoever makes that. */
public interface Contributions {
  /**
   * By mod, how many of its covered files went into the combined file that covers them: they reach
   * the game all the same.
   */
  Map<Long, Integer> contributed(OpenWorkspace open);
}
