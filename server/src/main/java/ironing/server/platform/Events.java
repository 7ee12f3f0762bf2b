package ironing.server.platform;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.UUID;
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

  /** Another one after each start: numbers of different servers have nothing to do with another. */
  private final String server = UUID.randomUUID().toString();

  /** Held while an event gets its number and is sent, so that each listener hears them in order. */
  private final Object turn = new Object();

  /** How many events were told since the start, to anybody or to nobody. */
  private long told;

  /**
   * What a listener of all workspaces hears first. Whoever has heard the same before has missed
   * nothing meanwhile.
   *
   * @param told the number of the last event
   */
  record Hello(String server, long told) {}

  /**
   * One thing that happened, as it is told to those who hear of all workspaces.
   *
   * @param number one more than that of the event before
   * @param kind as in {@link #tell}
   * @param data the same that listeners of the workspace get
   */
  record Told(long number, long workspace, String kind, Object data) {}

  public SseEmitter listen(long workspace) {
    return listen(
        listeners.computeIfAbsent(workspace, w -> new CopyOnWriteArrayList<>()),
        Map.of("workspace", workspace));
  }

  /** Hello is a {@link Hello}; each event is called {@code told} and is a {@link Told}. */
  SseEmitter listenToAll() {
    synchronized (turn) {
      return listen(ofAll, new Hello(server, told));
    }
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
    synchronized (turn) {
      Told next = new Told(++told, workspace, kind, data);
      for (SseEmitter e : ofAll) send(ofAll, e, "told", next);
    }
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
