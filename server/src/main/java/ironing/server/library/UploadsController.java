package ironing.server.library;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** The addresses of the upload protocol, whose own document describes them: {@link Uploads}. */
@RestController
class UploadsController {
  private final Uploads uploads;

  UploadsController(Uploads uploads) {
    this.uploads = uploads;
  }

  @PostMapping(Uploads.ADDRESS)
  @Operation(summary = "Begins an upload, as tus 1.0.0 (creation) says.")
  @ApiResponse(responseCode = "201", description = "Its address is in Location")
  void beginUpload(
      @Parameter(hidden = true) HttpServletRequest request,
      @Parameter(hidden = true) HttpServletResponse response)
      throws IOException {
    uploads.process(request, response);
  }

  @PatchMapping(Uploads.ADDRESS + "/{upload}")
  @Operation(
      summary = "Sends bytes from an offset on, as tus 1.0.0 (core) says; HEAD tells the offset.")
  @ApiResponse(responseCode = "204", description = "The offset reached is in Upload-Offset")
  void sendUpload(
      @PathVariable String upload,
      @Parameter(hidden = true) HttpServletRequest request,
      @Parameter(hidden = true) HttpServletResponse response)
      throws IOException {
    uploads.process(request, response);
  }

  @DeleteMapping(Uploads.ADDRESS + "/{upload}")
  @Operation(summary = "Gives an upload up, as tus 1.0.0 (termination) says.")
  @ApiResponse(responseCode = "204", description = "It is gone")
  void giveUpUpload(
      @PathVariable String upload,
      @Parameter(hidden = true) HttpServletRequest request,
      @Parameter(hidden = true) HttpServletResponse response)
      throws IOException {
    uploads.process(request, response);
  }

  /** What the protocol asks about uploads. */
  @RequestMapping(
      path = {Uploads.ADDRESS, Uploads.ADDRESS + "/*"},
      method = {RequestMethod.HEAD, RequestMethod.OPTIONS})
  @Hidden
  void askUpload(HttpServletRequest request, HttpServletResponse response) throws IOException {
    uploads.process(request, response);
  }
}
