package org.transitum.server.problems;

import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import org.springframework.web.util.DisconnectedClientHelper;
import org.transitum.core.InvalidValue;
import org.transitum.core.crossings.MoveRefused;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.inventory.Unreachable;

/** The one place where an error becomes an HTTP answer. */
@RestControllerAdvice
class Problems extends ResponseEntityExceptionHandler {
  private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

  @ExceptionHandler
  ProblemDetail invalid(InvalidValue e) {
    return problem(HttpStatus.UNPROCESSABLE_CONTENT, "invalid", "Not taken", e.getMessage());
  }

  @ExceptionHandler
  ProblemDetail badFile(BadFile e) {
    ProblemDetail detail =
        problem(
            HttpStatus.UNPROCESSABLE_CONTENT,
            "bad-file",
            "The file was not taken",
            e.total() == 1
                ? e.getMessage()
                : "%,d problems; nothing of the file was stored.".formatted(e.total()));
    detail.setProperty("problems", e.problems());
    detail.setProperty("restReadable", e.restReadable());
    return detail;
  }

  @ExceptionHandler
  ProblemDetail missing(Missing e) {
    return problem(HttpStatus.NOT_FOUND, "missing", "Not there", e.getMessage());
  }

  @ExceptionHandler({Refused.class, MoveRefused.class})
  ProblemDetail refused(RuntimeException e) {
    return problem(HttpStatus.CONFLICT, "refused", "Refused", e.getMessage());
  }

  @ExceptionHandler
  ProblemDetail conflict(Conflict e) {
    ProblemDetail detail =
        problem(
            HttpStatus.PRECONDITION_FAILED,
            "conflict",
            "Somebody changed this first",
            e.getMessage());
    detail.setProperty("yours", e.yours());
    detail.setProperty("theirs", e.theirs());
    detail.setProperty("version", e.version());
    return detail;
  }

  @ExceptionHandler
  ProblemDetail unreachable(Unreachable e) {
    return problem(HttpStatus.BAD_GATEWAY, "unreachable", "Not reached", e.getMessage());
  }

  @ExceptionHandler
  @Nullable ProblemDetail unexpected(Exception e, HttpServletResponse response) {
    if (response.isCommitted() && DisconnectedClientHelper.isClientDisconnectedException(e)) {
      // Whoever asked left while the answer was on its way. Before that, a broken connection is one
      // to somebody else, such as a source server, and must not pass for success.
      return null;
    }
    LOG.error("unexpected", e);
    return problem(
        HttpStatus.INTERNAL_SERVER_ERROR,
        "unexpected",
        "Something went wrong here",
        "The server met an error that it did not expect; nothing of this change was stored. Its log says more.");
  }

  @Override
  protected ResponseEntity<Object> handleMethodArgumentNotValid(
      MethodArgumentNotValidException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    String fields =
        e.getBindingResult().getFieldErrors().stream()
            .map(error -> error.getField() + " " + error.getDefaultMessage())
            .sorted()
            .reduce((one, other) -> one + "; " + other)
            .orElse("the request is not complete");
    return answer(HttpStatus.UNPROCESSABLE_CONTENT, "Not taken: " + fields + ".");
  }

  @Override
  protected ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (cause instanceof InvalidValue) {
        return answer(HttpStatus.UNPROCESSABLE_CONTENT, cause.getMessage());
      }
    }
    return answer(
        HttpStatus.BAD_REQUEST, "The request's body is not the JSON that this address expects.");
  }

  private static ResponseEntity<Object> answer(HttpStatus status, String sentence) {
    return ResponseEntity.status(status).body(problem(status, "invalid", "Not taken", sentence));
  }

  private static ProblemDetail problem(
      HttpStatus status, String type, String title, String sentence) {
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(status, sentence == null ? title : sentence);
    detail.setType(URI.create("urn:transitum:problem:" + type));
    detail.setTitle(title);
    return detail;
  }
}
