package ironing.server.platform;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;

/**
 * What is answered to a request that no part of the product sees, such as one for an address that
 * cannot be read: a problem as every other (RFC 9457), with the headers of every other answer.
 * Tomcat makes it by its name.
 */
public final class PlainErrors extends ErrorReportValve {
  @Override
  protected void report(Request request, Response response, Throwable thrown) {
    int status = response.getStatus();
    if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) return;
    LocalOnlyFilter.protect(response, "/api/");
    response.setContentType("application/problem+json");
    String body =
        """
        {"type":"/api/codes/request-unreadable","title":"Not answered","status":%d,"code":"request-unreadable",\
        "detail":"The server cannot read this request. Check its address and its headers."}
        """
            .formatted(status);
    try {
      response.getOutputStream().write(body.getBytes(StandardCharsets.UTF_8));
      response.finishResponse();
    } catch (IOException | IllegalStateException gone) {
      // whoever asked does not wait for an answer any more
    }
  }
}
