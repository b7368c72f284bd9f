package org.transitum.collector;

import java.io.FileNotFoundException;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import org.transitum.collector.CollectionList.PushTarget;
import org.transitum.sources.http.BoundedHttp;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Sends bundles to Transitum with a token that may do nothing else. */
final class Pusher {
  private static final Duration PATIENCE = Duration.ofMinutes(10);
  private static final int MOST_ANSWER = 1 << 20;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private Pusher() {}

  /**
   * The server holds a bundle that it has already by its id, so one that is sent twice does no
   * harm.
   *
   * @throws IOException with the reason in words; the bundle stays where it is
   */
  static void push(PushTarget target, Path bundle) throws IOException {
    String name = URLEncoder.encode(bundle.getFileName().toString(), StandardCharsets.UTF_8);
    HttpRequest.Builder request =
        HttpRequest.newBuilder(
                URI.create(
                    target.server().toString().replaceAll("/+$", "")
                        + "/api/v1/bundles?name="
                        + name))
            .header("Authorization", "Bearer " + target.token().read())
            .header("Content-Type", "application/zip")
            .POST(body(bundle));
    BoundedHttp.send(
        request,
        PATIENCE,
        MOST_ANSWER,
        (status, headers, body) -> {
          if (status != 200) {
            String text = new String(body.readAllBytes(), StandardCharsets.UTF_8);
            throw new IOException("%d: %s".formatted(status, detail(text)));
          }
          return status;
        });
  }

  private static HttpRequest.BodyPublisher body(Path bundle) throws IOException {
    try {
      return BodyPublishers.ofFile(bundle);
    } catch (FileNotFoundException e) {
      throw new IOException(bundle + " is gone", e);
    }
  }

  private static String detail(String text) {
    try {
      String detail = JSON.readTree(text).path("detail").asString("");
      return detail.isEmpty() ? "no reason given" : detail;
    } catch (JacksonException e) {
      return "an answer that is none of Transitum; is it the right address?";
    }
  }
}
