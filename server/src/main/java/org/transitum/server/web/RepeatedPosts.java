package org.transitum.server.web;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.ConcurrentMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;

/**
 * Makes a repeated post safe: the same person, address and Idempotency-Key get the first answer
 * again, and nothing is done twice. Answers are kept in memory for a day; one that says that the
 * server failed is not kept, so that it can be tried again.
 */
@Component
class RepeatedPosts extends OncePerRequestFilter {
  private static final String HEADER = "Idempotency-Key";
  private static final int LONGEST_KEY = 100;
  private static final int MOST = 10_000;
  private static final Answer PENDING = new Answer(0, null, new byte[0]);

  private record Answer(int status, @Nullable String type, byte[] body) {}

  private final Cache<String, Answer> cache =
      Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(Duration.ofDays(1)).build();

  @Override
  protected boolean shouldNotFilter(HttpServletRequest request) {
    return !request.getMethod().equals("POST")
        || !request.getRequestURI().startsWith("/api/v1/")
        || request.getHeader(HEADER) == null
        || request.getRemoteUser() == null;
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    String key = request.getHeader(HEADER);
    if (key.isBlank() || key.length() > LONGEST_KEY) {
      say(response, 400, "The Idempotency-Key must have 1 to 100 characters.");
      return;
    }
    String query = request.getQueryString();
    String whole =
        String.join(
            "\n",
            request.getRemoteUser(),
            request.getRequestURI() + "?" + (query == null ? "" : query),
            key);
    ConcurrentMap<String, Answer> answers = cache.asMap();
    Answer before = answers.putIfAbsent(whole, PENDING);
    if (before == PENDING) {
      say(response, 409, "The same request is being answered just now; ask again in a moment.");
    } else if (before != null) {
      response.setStatus(before.status());
      response.setContentType(before.type());
      response.getOutputStream().write(before.body());
    } else {
      answer(request, response, chain, whole, answers);
    }
  }

  private static void answer(
      HttpServletRequest request,
      HttpServletResponse response,
      FilterChain chain,
      String whole,
      ConcurrentMap<String, Answer> answers)
      throws ServletException, IOException {
    ContentCachingResponseWrapper kept = new ContentCachingResponseWrapper(response);
    boolean done = false;
    try {
      chain.doFilter(request, kept);
      done = kept.getStatus() < 500;
      if (done) {
        answers.put(
            whole,
            new Answer(kept.getStatus(), kept.getContentType(), kept.getContentAsByteArray()));
      }
    } finally {
      if (!done) {
        answers.remove(whole);
      }
    }
    kept.copyBodyToResponse();
  }

  private static void say(HttpServletResponse response, int status, String sentence)
      throws IOException {
    response.setStatus(status);
    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    response
        .getOutputStream()
        .write(
            "{\"status\":%d,\"detail\":\"%s\"}"
                .formatted(status, sentence)
                .getBytes(StandardCharsets.UTF_8));
  }
}
