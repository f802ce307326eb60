package app.zolvan.server.problem;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.material.ParameterException;
import app.zolvan.server.database.Outage;
import java.net.URI;
import java.util.Map;
import java.util.stream.Collectors;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Turns everything that goes wrong into a problem with a sentence. Details of faults stay in the log. */
@RestControllerAdvice
public class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);
    public static final String DATABASE_AWAY =
            "Zolvan can’t reach its database just now. It is being brought back; try again in a moment.";
    public static final String TOO_LONG = "That is more than Zolvan takes at once. Do it in several steps.";
    private static final String TYPES = "urn:zolvan:problem:";

    @ExceptionHandler
    ResponseEntity<ProblemDetail> problem(Problem p) {
        ProblemDetail detail = detail(p.status(), p.type(), p.getMessage());
        if (p.field() != null) {
            detail.setProperty("field", p.field());
        }
        if (p.current() != null) {
            detail.setProperty("current", p.current());
        }
        return answer(detail);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> badParameter(ParameterException e) {
        ProblemDetail detail = detail(HttpStatus.UNPROCESSABLE_CONTENT, "invalid-value", e.getMessage());
        detail.setProperty("field", e.field());
        return answer(detail);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> badFile(ImportException e) {
        return answer(detail(HttpStatus.UNPROCESSABLE_CONTENT, e.reason(), e.getMessage()));
    }

    /** Nobody is there any more who could be answered. */
    @ExceptionHandler
    void gone(ClientAbortException e) {
        LOG.debug("a browser left before it was answered", e);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> fault(Exception e) {
        if (Outage.is(e)) {
            return unavailable("database-away", DATABASE_AWAY);
        }
        if (Outage.isClash(e)) {
            return unavailable("busy", "Two changes met in the database and yours was held back. Try it again.");
        }
        LOG.error("a request failed", e);
        return answer(detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "fault",
                "Something went wrong on our side and nothing was changed. Try again; if it happens again, tell us"
                        + " what you did."));
    }

    private static ResponseEntity<ProblemDetail> unavailable(String type, String sentence) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .header(HttpHeaders.RETRY_AFTER, "1")
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(detail(HttpStatus.SERVICE_UNAVAILABLE, type, sentence));
    }

    @Override
    protected ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        String sentence = e.getBindingResult().getFieldErrors().stream()
                .map(f -> f.getField() + " " + f.getDefaultMessage() + ".")
                .collect(Collectors.joining(" "));
        ProblemDetail detail = detail(HttpStatus.UNPROCESSABLE_CONTENT, "invalid-value", sentence);
        if (e.getBindingResult().getFieldError() != null) {
            detail.setProperty("field", e.getBindingResult().getFieldError().getField());
        }
        return ResponseEntity.unprocessableContent()
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(detail);
    }

    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return e.getMostSpecificCause() instanceof TooLongException
                ? handleExceptionInternal(e, null, headers, HttpStatus.CONTENT_TOO_LARGE, request)
                : super.handleHttpMessageNotReadable(e, headers, status, request);
    }

    @Override
    protected ResponseEntity<Object> handleAsyncRequestNotUsableException(
            AsyncRequestNotUsableException e, WebRequest request) {
        LOG.debug("a browser left before it was answered", e);
        return null;
    }

    @Override
    protected ResponseEntity<Object> handleExceptionInternal(
            Exception e, Object body, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        Map<Integer, String> sentences = Map.of(
                413, TOO_LONG,
                400, "The request could not be understood. Reload the page and try again.",
                404, "There is nothing here.",
                405, "That can’t be done here.",
                415, "That kind of content is not taken here.");
        String sentence = sentences.getOrDefault(status.value(), "The request could not be carried out.");
        return ResponseEntity.status(status)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(detail(status, "request", sentence));
    }

    public static ProblemDetail detail(HttpStatusCode status, String type, String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence);
        detail.setType(URI.create(TYPES + type));
        return detail;
    }

    private static ResponseEntity<ProblemDetail> answer(ProblemDetail detail) {
        return ResponseEntity.status(detail.getStatus())
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(detail);
    }
}
