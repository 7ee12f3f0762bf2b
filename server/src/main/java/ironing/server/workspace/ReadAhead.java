package ironing.server.workspace;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Once the server answers, the workspace that was worked on last is read into memory. A page that
 * asks earlier waits for its own workspace alone; another one is read when somebody asks for it.
 */
@Component
class ReadAhead {
  private static final Logger LOG = LoggerFactory.getLogger(ReadAhead.class);
  private final OpenWorkspaceMapper db;
  private final OpenWorkspaces workspaces;
  private volatile boolean ended;

  ReadAhead(OpenWorkspaceMapper db, OpenWorkspaces workspaces) {
    this.db = db;
    this.workspaces = workspaces;
  }

  @EventListener(ApplicationReadyEvent.class)
  void begin() {
    Thread reading = new Thread(this::readLast, "read-ahead");
    reading.setDaemon(true);
    reading.start();
  }

  @EventListener(ContextClosedEvent.class)
  void end() {
    ended = true;
  }

  private void readLast() {
    long began = System.nanoTime();
    try {
      Long last = db.lastUsed();
      if (last == null) return;
      workspaces.get(last);
      LOG.info("workspace {} in memory after {} ms", last, (System.nanoTime() - began) / 1_000_000);
    } catch (RuntimeException e) {
      // whoever opens it is told
      if (!ended) LOG.warn("no workspace is read ahead: {}", e.getMessage());
    }
  }
}
