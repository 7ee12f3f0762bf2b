package ironing.server.library;

import ironing.core.deploy.RealDisk;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Removes folders of a library that nothing in the database leads to any more, one after another,
 * while nobody waits: a tree can be hundreds of thousands of files. What is not removed when the
 * server ends is removed at the next start.
 */
@Component
class Remover {
  private static final Logger LOG = LoggerFactory.getLogger(Remover.class);
  private final ExecutorService worker = Executors.newSingleThreadExecutor(Remover::thread);
  private final RealDisk disk = new RealDisk();

  void remove(Path folder) {
    worker.execute(
        () -> {
          try {
            disk.removeTree(folder);
          } catch (IOException litter) {
            LOG.warn("{} stays until the next start: {}", folder, litter.getMessage());
          }
        });
  }

  /** Waits until all is gone that was to be removed. */
  void finish() {
    CompletableFuture.runAsync(() -> {}, worker).join();
  }

  // a start that fails must not be kept from ending by it
  private static Thread thread(Runnable work) {
    Thread thread = new Thread(work, "remover");
    thread.setDaemon(true);
    return thread;
  }

  @PreDestroy
  void stop() {
    worker.shutdownNow();
  }
}
