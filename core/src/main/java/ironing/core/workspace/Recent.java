package ironing.core.workspace;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/** What has been used lately. */
public final class Recent {
  private Recent() {}

  /** A map for any number of threads that lets go of what was used longest ago. */
  public static <K, V> Map<K, V> map(int most) {
    return Collections.synchronizedMap(
        new LinkedHashMap<>(64, 0.75f, true) {
          @Override
          protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
            return size() > most;
          }
        });
  }
}
