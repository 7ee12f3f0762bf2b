package ironing.server.deploy;

import ironing.core.deploy.LaidOut;
import ironing.server.workspace.OpenWorkspace;
import java.util.Map;

/** What a tool wrote that was started elsewhere goes to its mod before the next deployment. */
public interface StrayOutputs {
  /**
   * Takes into the library what known tools left in the folder.
   *
   * @return game path to SHA-256 of what the library has on disk now
   */
  Map<String, String> takeIn(OpenWorkspace open, LaidOut note);
}
