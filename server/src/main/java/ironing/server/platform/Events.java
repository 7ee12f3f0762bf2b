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
 * Server-sent events: what changed, so that another tab follows. Who listens hears of one
 * workspace, or of all of them: a browser has few connections, and its tabs share one.
 *
 * <p>Threads: any thread may send. A page that went away is dropped at the next event.
 */
@Component
@EnableScheduling
public class Events {
  private final Map<Long, List<SseEmitter>> listeners = new ConcurrentHashMap<>();
  private final List<SseEmitter> ofAll = new CopyOnWriteArrayList<>();

  /**
   * One thing that happened, as it is told to those who hear of all workspaces.
   *
   * @param kind as in {@link #tell}
   * @param data the same that listeners of the workspace get
   */
  record Told(long workspace, String kind, Object data) {}

  public SseEmitter listen(long workspace) {
    return listen(
        listeners.computeIfAbsent(workspace, w -> new CopyOnWriteArrayList<>()),
        Map.of("workspace", workspace));
  }

  /** Each event is called {@code told} and says its workspace, its kind and its data. */
  SseEmitter listenToAll() {
    return listen(ofAll, Map.of());
  }

  private static SseEmitter listen(List<SseEmitter> list, Object hello) {
    SseEmitter emitter = new SseEmitter(0L);
    list.add(emitter);
    emitter.onCompletion(() -> list.remove(emitter));
    emitter.onError(e -> list.remove(emitter));
    send(list, emitter, "hello", hello);
    return emitter;
  }

  /**
   * @param kind one of: arrangement, profiles, lists, pair-notes, library, inbox, job, deployment,
   *     run, run-line
   */
  public void tell(long workspace, String kind, Object data) {
    List<SseEmitter> list = listeners.getOrDefault(workspace, List.of());
    for (SseEmitter e : list) send(list, e, kind, data);
    for (SseEmitter e : ofAll) send(ofAll, e, "told", new Told(workspace, kind, data));
  }

  // Finds closed pages even when nothing happens, so that their connections do not pile up.
  @Scheduled(fixedRate = 20_000)
  void heartbeat() {
    listeners.values().forEach(list -> list.forEach(e -> send(list, e, "beat", Map.of())));
    ofAll.forEach(e -> send(ofAll, e, "beat", Map.of()));
  }

  /** Lets go of every page, so that the server's end does not wait for those that are open. */
  @EventListener(ContextClosedEvent.class)
  void letGo() {
    listeners.values().forEach(list -> list.forEach(ResponseBodyEmitter::complete));
    ofAll.forEach(ResponseBodyEmitter::complete);
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
