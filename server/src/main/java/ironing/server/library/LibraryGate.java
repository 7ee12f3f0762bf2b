package ironing.server.library;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReadWriteLock;
import java.util.concurrent.locks.ReentrantReadWriteLock;
import org.springframework.stereotype.Component;

/**
 * Keeps a library where it is while something is written to it, and keeps writers waiting while it
 * moves.
 */
@Component
class LibraryGate {
  private final Map<Long, ReadWriteLock> gates = new ConcurrentHashMap<>();

  /** Held; closing lets go. */
  interface Pass extends AutoCloseable {
    @Override
    void close();
  }

  /** For whoever writes to the library; any number at once. */
  Pass writing(long workspace) {
    return held(gate(workspace).readLock());
  }

  /** For whoever moves it, alone. */
  Pass moving(long workspace) {
    return held(gate(workspace).writeLock());
  }

  private static Pass held(Lock lock) {
    lock.lock();
    return lock::unlock;
  }

  private ReadWriteLock gate(long workspace) {
    return gates.computeIfAbsent(workspace, w -> new ReentrantReadWriteLock());
  }
}
