package ironing.server.platform;

import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

@RestController
class EventsController {
  private final Events events;

  EventsController(Events events) {
    this.events = events;
  }

  /** What happens in a workspace, as it happens. Workspace 0 tells of those that are being made. */
  @GetMapping(
      value = "/api/workspaces/{workspace}/events",
      produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  @ApiResponse(
      responseCode = "200",
      description = "hello, beat, arrangement, library, inbox, job, deployment, run, run-line",
      content = @Content(schema = @Schema(type = "string")))
  SseEmitter events(@PathVariable long workspace) {
    return events.listen(workspace);
  }

  /**
   * What happens in any workspace, as it happens: one connection for a browser with many tabs. Each
   * event is called told, and its data says its number, the workspace, the kind and what the events
   * of that workspace say. The hello says which server it is and the number of the last event: who
   * has heard that before has missed nothing.
   */
  @GetMapping(value = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  @ApiResponse(
      responseCode = "200",
      description = "hello, beat, told",
      content = @Content(schema = @Schema(type = "string")))
  SseEmitter allEvents() {
    return events.listenToAll();
  }
}
