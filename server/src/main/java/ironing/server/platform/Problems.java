package ironing.server.platform;

import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.exc.InvalidFormatException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.HandlerMethodValidationException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/**
 * Every error leaves as problem details (RFC 9457) that name the thing, the reason and the remedy.
 */
@RestControllerAdvice
class Problems extends ResponseEntityExceptionHandler {
  private static final Logger LOG = LoggerFactory.getLogger(Problems.class);
  private static final Set<String> NOT_FOUND = Set.of("not-found");
  private static final Set<String> MACHINE =
      Set.of("disk-full", "game-folder-failed", "library-failed");

  @ExceptionHandler(IroningException.class)
  ResponseEntity<ProblemDetail> told(IroningException e) {
    List<Problem> problems = e.problems();
    Problem first = problems.get(0);
    HttpStatus status = statusOf(first.code());
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(status, first.reason() + " " + first.remedy());
    detail.setTitle(first.thing());
    detail.setProperty("code", first.code());
    detail.setProperty("problems", problems);
    return ResponseEntity.status(status).body(detail);
  }

  @Override
  protected ResponseEntity<Object> handleAsyncRequestNotUsableException(
      AsyncRequestNotUsableException e, WebRequest request) {
    // the page that listened was closed: nobody is left to tell
    return null;
  }

  @ExceptionHandler(Exception.class)
  ResponseEntity<ProblemDetail> unforeseen(Exception e) {
    Optional<IroningException> gone = DatabaseGone.told(e);
    if (gone.isPresent()) {
      LOG.warn("the database does not answer: {}", e.getMessage());
      return told(gone.get());
    }
    LOG.error("unforeseen", e);
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.INTERNAL_SERVER_ERROR,
            "Something went wrong inside Ironing. Nothing was changed by this request; the server’s log has the details.");
    detail.setTitle("An error of Ironing’s own");
    detail.setProperty("code", "internal");
    return ResponseEntity.internalServerError().body(detail);
  }

  @Override
  protected ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.BAD_REQUEST,
            "The request’s body is not what this address takes"
                + why(e.getMostSpecificCause())
                + " Compare it with /api/openapi.json.");
    detail.setTitle("A body that cannot be read");
    detail.setProperty("code", "body-unreadable");
    return ResponseEntity.badRequest().body(detail);
  }

  private static String why(Throwable cause) {
    if (cause instanceof InvalidFormatException unfit)
      return ": " + place(unfit) + " does not fit" + detail(unfit) + ".";
    if (cause instanceof UnrecognizedPropertyException unknown)
      return ": nothing is called “" + unknown.getPropertyName() + "” there.";
    if (cause instanceof MismatchedInputException unfit && !unfit.getPath().isEmpty())
      return ": " + place(unfit) + " is missing, null, or of another kind.";
    if (cause instanceof NullPointerException missing)
      return ": “" + missing.getMessage() + "” is missing.";
    return ".";
  }

  /**
   * Of texts that could not be kept, what is wrong with them; of others there is nothing to add.
   */
  private static String detail(InvalidFormatException e) {
    int at = e.getOriginalMessage().indexOf("it holds ");
    return at < 0 ? "" : ": " + e.getOriginalMessage().substring(at);
  }

  private static String place(JsonMappingException e) {
    StringBuilder out = new StringBuilder("“");
    for (JsonMappingException.Reference r : e.getPath())
      if (r.getFieldName() == null) out.append('[').append(r.getIndex()).append(']');
      else out.append(out.length() > 1 ? "." : "").append(r.getFieldName());
    return out.append('”').toString();
  }

  @Override
  protected ResponseEntity<Object> handleHandlerMethodValidationException(
      HandlerMethodValidationException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    String what =
        e.getParameterValidationResults().stream()
            .map(r -> "“" + r.getMethodParameter().getParameterName() + "”")
            .collect(Collectors.joining(", "));
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.BAD_REQUEST,
            "Of the request’s parameters, "
                + what
                + " is out of its range. See /api/openapi.json.");
    detail.setTitle("A parameter that does not fit");
    detail.setProperty("code", "parameter-unfit");
    return ResponseEntity.badRequest().body(detail);
  }

  /** Of two requests for one and the same, made at once, the second one finds it there. */
  @ExceptionHandler(DuplicateKeyException.class)
  ResponseEntity<ProblemDetail> twice(DuplicateKeyException e) {
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.CONFLICT,
            "Another request has just made one of that name. Look at it, or choose another name.");
    detail.setTitle("There is one already");
    detail.setProperty("code", "already-there");
    return ResponseEntity.status(HttpStatus.CONFLICT).body(detail);
  }

  private static HttpStatus statusOf(String code) {
    if (NOT_FOUND.contains(code)) return HttpStatus.NOT_FOUND;
    if (code.equals(DatabaseGone.CODE)) return HttpStatus.SERVICE_UNAVAILABLE;
    if (code.equals("changed-meanwhile")) return HttpStatus.PRECONDITION_FAILED;
    if (code.equals("if-match-missing")) return HttpStatus.PRECONDITION_REQUIRED;
    if (code.equals("busy") || code.equals("already-there")) return HttpStatus.CONFLICT;
    return MACHINE.contains(code)
        ? HttpStatus.INSUFFICIENT_STORAGE
        : HttpStatus.UNPROCESSABLE_ENTITY;
  }
}
