package ironing.server.platform;

import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.exc.InvalidFormatException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.lang.Nullable;
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
  private static final String METHOD_CODE = "method-unknown";

  @ExceptionHandler(IroningException.class)
  ResponseEntity<ProblemDetail> told(IroningException e) {
    List<Problem> problems = e.problems();
    Problem first = problems.get(0);
    ProblemDetail detail =
        detail(first.code(), first.thing(), first.reason() + " " + first.remedy());
    detail.setProperty("problems", problems);
    return answer(detail);
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
    return answer(
        detail(
            "internal",
            "An error of Ironing’s own",
            "Something went wrong inside Ironing. Nothing was changed by this request; the server’s log has the details."));
  }

  @Override
  protected ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    return refused(
        detail(
            "body-unreadable",
            "A body that cannot be read",
            "The request’s body is not what this address takes"
                + why(e.getMostSpecificCause())
                + " Compare it with /api/openapi.json."));
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
    return refused(
        detail(
            "parameter-unfit",
            "A parameter that does not fit",
            "Of the request’s parameters, "
                + what
                + " is out of its range. See /api/openapi.json."));
  }

  /** Of two requests for one and the same, made at once, the second one finds it there. */
  @ExceptionHandler(DuplicateKeyException.class)
  ResponseEntity<ProblemDetail> twice(DuplicateKeyException e) {
    return answer(
        detail(
            "already-there",
            "There is one already",
            "Another request has just made one of that name. Look at it, or choose another name."));
  }

  /** What the framework refuses by itself has a code as everything else. */
  @Override
  protected ResponseEntity<Object> createResponseEntity(
      @Nullable Object body, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
    if (body instanceof ProblemDetail detail
        && (detail.getProperties() == null || !detail.getProperties().containsKey("code")))
      coded(
          detail,
          switch (status.value()) {
            case 404 -> "not-found";
            case 405 -> METHOD_CODE;
            default -> "request-unfit";
          });
    return super.createResponseEntity(body, headers, status, request);
  }

  private static ProblemDetail detail(String code, String title, String text) {
    ProblemDetail detail = ProblemDetail.forStatusAndDetail(Codes.statusOf(code), text);
    detail.setTitle(title);
    coded(detail, code);
    return detail;
  }

  private static void coded(ProblemDetail detail, String code) {
    detail.setType(Codes.typeOf(code));
    detail.setProperty("code", code);
  }

  private static ResponseEntity<ProblemDetail> answer(ProblemDetail detail) {
    return ResponseEntity.status(detail.getStatus()).body(detail);
  }

  private static ResponseEntity<Object> refused(ProblemDetail detail) {
    return ResponseEntity.status(detail.getStatus()).body(detail);
  }
}
