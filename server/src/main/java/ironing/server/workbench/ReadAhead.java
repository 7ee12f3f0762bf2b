package ironing.server.workbench;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Once the server answers, every workspace is read into memory, the one that was worked on last
 * first. A page that asks earlier waits for its own workspace and for no other.
 */
@Component
class ReadAhead {
  private static final Logger LOG = LoggerFactory.getLogger(ReadAhead.class);
  private final BenchMapper db;
  private final Workbenches benches;
  private volatile boolean ended;

  ReadAhead(BenchMapper db, Workbenches benches) {
    this.db = db;
    this.benches = benches;
  }

  @EventListener(ApplicationReadyEvent.class)
  void begin() {
    Thread reading = new Thread(this::readAll, "read-ahead");
    reading.setDaemon(true);
    reading.start();
  }

  @EventListener(ContextClosedEvent.class)
  void end() {
    ended = true;
  }

  void readAll() {
    long began = System.nanoTime();
    int read = 0;
    try {
      for (long workspace : db.workspacesByUse()) {
        if (ended) return;
        if (read(workspace)) read++;
      }
      LOG.info(
          "workspaces in memory: {}, after {} ms", read, (System.nanoTime() - began) / 1_000_000);
    } catch (RuntimeException unknown) {
      // the database: whoever asks is told
      if (!ended) LOG.warn("workspaces are not read ahead: {}", unknown.getMessage());
    }
  }

  private boolean read(long workspace) {
    try {
      benches.get(workspace);
      return true;
    } catch (RuntimeException e) {
      // one that cannot be read must not keep the others waiting; whoever opens it is told
      if (!ended) LOG.warn("workspace {} is not read ahead: {}", workspace, e.getMessage());
      return false;
    }
  }
}
