package ironing.server.library;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The addresses of the upload protocol, whose own document describes them: {@link Uploads}. */
@RestController
@Hidden
class UploadsController {
  private final Uploads uploads;

  UploadsController(Uploads uploads) {
    this.uploads = uploads;
  }

  @RequestMapping({Uploads.ADDRESS, Uploads.ADDRESS + "/*"})
  void upload(HttpServletRequest request, HttpServletResponse response) throws IOException {
    uploads.process(request, response);
  }
}
