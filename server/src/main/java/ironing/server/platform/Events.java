package ironing.server.platform;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events to every open page of a workspace: what changed, so that another tab follows.
 *
 * <p>Threads: any thread may send. A page that went away is dropped at the next event.
 */
@Component
@EnableScheduling
public class Events {
  private final Map<Long, List<SseEmitter>> listeners = new ConcurrentHashMap<>();

  public SseEmitter listen(long workspace) {
    SseEmitter emitter = new SseEmitter(0L);
    List<SseEmitter> list = listeners.computeIfAbsent(workspace, w -> new CopyOnWriteArrayList<>());
    list.add(emitter);
    emitter.onCompletion(() -> list.remove(emitter));
    emitter.onError(e -> list.remove(emitter));
    send(list, emitter, "hello", Map.of("workspace", workspace));
    return emitter;
  }

  /**
   * @param kind one of: arrangement, profiles, lists, pair-notes, library, inbox, job, deployment,
   *     run, run-line
   */
  public void tell(long workspace, String kind, Object data) {
    List<SseEmitter> list = listeners.getOrDefault(workspace, List.of());
    for (SseEmitter e : list) send(list, e, kind, data);
  }

  // Finds closed pages even when nothing happens, so that their connections do not pile up.
  @Scheduled(fixedRate = 20_000)
  void heartbeat() {
    listeners.values().forEach(list -> list.forEach(e -> send(list, e, "beat", Map.of())));
  }

  /** Lets go of every page, so that the server's end does not wait for those that are open. */
  @EventListener(ContextClosedEvent.class)
  void letGo() {
    listeners.values().forEach(list -> list.forEach(ResponseBodyEmitter::complete));
  }

  private static void send(List<SseEmitter> list, SseEmitter e, String kind, Object data) {
    try {
      synchronized (e) {
        e.send(SseEmitter.event().name(kind).data(data));
      }
    } catch (IOException | IllegalStateException gone) {
      list.remove(e);
    }
  }
}
