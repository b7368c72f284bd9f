package org.transitum.sources.counters;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.counters.Counter;
import org.transitum.sources.http.BoundedHttp;
import org.transitum.sources.inventory.Unreachable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.json.JsonFactory;

/**
 * Reads ranges from any server that speaks the Prometheus HTTP API, a day at a time and rule by
 * rule, so that no answer grows without bound.
 */
public final class PrometheusReader {
  private static final Duration PATIENCE = Duration.ofSeconds(60);
  private static final Duration WINDOW = Duration.ofDays(1);
  private static final long MOST_BYTES = 96L << 20;
  private static final JsonFactory JSON = JsonFactory.builder().build();

  private final Address address;
  private final MetricMapping mapping;
  private final MetricTargets targets;

  /**
   * Where the server is.
   *
   * @param base such as {@code http://metrics.example:9090}
   * @param user for basic sign-in; null for none
   */
  public record Address(URI base, @Nullable String user, @Nullable String password) {

    /**
     * @throws InvalidValue when the text is no address over HTTP
     */
    public static Address of(String base, @Nullable String user, @Nullable String password) {
      URI uri;
      try {
        uri = URI.create(base.strip().replaceAll("/+$", ""));
      } catch (IllegalArgumentException e) {
        throw new InvalidValue("\"%s\" is no address.".formatted(base));
      }
      boolean plain = "http".equals(uri.getScheme()) || "https".equals(uri.getScheme());
      if (!plain || uri.getHost() == null || uri.getUserInfo() != null || uri.getQuery() != null) {
        throw new InvalidValue(
            "\"%s\" is no address of a metrics server; write it as http://metrics.example:9090."
                .formatted(base));
      }
      return new Address(uri, user, password);
    }

    /** Never shows the password. */
    @Override
    public String toString() {
      return base.toString();
    }
  }

  private interface Points {
    void take(Map<String, String> labels, long millis, double value);
  }

  public PrometheusReader(Address address, MetricMapping mapping, MetricTargets targets) {
    this.address = address;
    this.mapping = mapping;
    this.targets = targets;
  }

  /**
   * @param from start of the range, rounded to the step
   * @param step between two points
   * @param progress told what is being read; may throw to cancel
   * @throws Unreachable with the reason in words; the sink may have been given days by then
   */
  public MetricsRead read(
      Instant from, Instant to, Duration step, CounterSink sink, Consumer<String> progress) {
    AlignedWriter writer = new AlignedWriter(sink);
    long stepSeconds = step.toSeconds();
    long start = Math.floorDiv(from.getEpochSecond(), stepSeconds) * stepSeconds;
    long end = to.getEpochSecond();
    for (MetricRule rule : mapping.rules()) {
      for (long at = start; at <= end; at += WINDOW.toSeconds()) {
        long until = Math.min(end, at + WINDOW.toSeconds() - stepSeconds);
        progress.accept(
            "%s, %s"
                .formatted(
                    rule.counter().column(),
                    Instant.ofEpochSecond(at).toString().substring(0, 10)));
        range(
            rule.expression(),
            at,
            until,
            stepSeconds,
            (labels, millis, value) -> take(writer, rule, labels, millis, value));
      }
    }
    return writer.finish(targets);
  }

  private void take(
      AlignedWriter writer,
      MetricRule rule,
      Map<String, String> labels,
      long millis,
      double value) {
    String object =
        targets.object(
            rule, labels.getOrDefault(rule.target(), ""), labels.getOrDefault(rule.database(), ""));
    if (object != null) {
      Counter counter = rule.counter();
      writer.take(object, counter, millis, value);
    }
  }

  private void range(String expression, long start, long end, long step, Points points) {
    String form =
        "query=%s&start=%d&end=%d&step=%d"
            .formatted(URLEncoder.encode(expression, StandardCharsets.UTF_8), start, end, step);
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(address.base() + "/api/v1/query_range"))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .header("Accept", "application/json")
            .POST(BodyPublishers.ofString(form));
    if (address.user() != null) {
      request.header("Authorization", BoundedHttp.basic(address.user(), address.password()));
    }
    try {
      BoundedHttp.send(
          request,
          PATIENCE,
          MOST_BYTES,
          (status, headers, body) -> {
            answer(status, headers.firstValue("Content-Type").orElse(""), body, points);
            return status;
          });
    } catch (BoundedHttp.TooLarge e) {
      throw new Unreachable(
          "The metrics server's answer for one day is larger than %d MiB; take a longer step or fewer databases."
              .formatted(MOST_BYTES >> 20),
          e);
    } catch (JacksonException e) {
      throw new Unreachable(
          "%s answered something that is no JSON of a metrics server, or broke off in the middle."
              .formatted(address),
          e);
    } catch (IOException e) {
      throw new Unreachable(
          "%s did not answer: %s. Check address, network and certificate."
              .formatted(address, BoundedHttp.plain(e)),
          e);
    }
  }

  private void answer(int status, String type, InputStream body, Points points) {
    if (status == 401 || status == 403) {
      throw new Unreachable(
          "%s asks for a sign-in, or refuses this one (%d).".formatted(address, status), null);
    }
    if (!type.contains("json")) {
      throw new Unreachable(
          "%s answered %d with %s instead of JSON. Is it the address of the metrics server itself?"
              .formatted(address, status, type.isEmpty() ? "nothing told" : type),
          null);
    }
    try (JsonParser json = JSON.createParser(tools.jackson.core.ObjectReadContext.empty(), body)) {
      String problem = parse(json, points);
      if (status != 200 || problem != null) {
        throw new Unreachable(
            "%s refused the query (%d): %s"
                .formatted(address, status, problem == null ? "no reason given" : problem),
            null);
      }
    }
  }

  /** Returns what the server says went wrong; null where nothing did. */
  private static @Nullable String parse(JsonParser json, Points points) {
    String problem = null;
    require(json.nextToken() == JsonToken.START_OBJECT, json);
    while (json.nextToken() == JsonToken.PROPERTY_NAME) {
      String name = json.currentName();
      JsonToken value = json.nextToken();
      if (name.equals("error")) {
        problem = json.getString();
      } else if (name.equals("data") && value == JsonToken.START_OBJECT) {
        data(json, points);
      } else {
        json.skipChildren();
      }
    }
    require(json.currentToken() == JsonToken.END_OBJECT, json);
    return problem;
  }

  private static void data(JsonParser json, Points points) {
    while (json.nextToken() == JsonToken.PROPERTY_NAME) {
      String name = json.currentName();
      JsonToken value = json.nextToken();
      if (name.equals("result") && value == JsonToken.START_ARRAY) {
        while (json.nextToken() == JsonToken.START_OBJECT) {
          series(json, points);
        }
        require(json.currentToken() == JsonToken.END_ARRAY, json);
      } else {
        json.skipChildren();
      }
    }
  }

  private static void series(JsonParser json, Points points) {
    Map<String, String> labels = new HashMap<>();
    while (json.nextToken() == JsonToken.PROPERTY_NAME) {
      String name = json.currentName();
      JsonToken value = json.nextToken();
      if (name.equals("metric") && value == JsonToken.START_OBJECT) {
        while (json.nextToken() == JsonToken.PROPERTY_NAME) {
          String label = json.currentName();
          json.nextToken();
          labels.put(label, json.getString());
        }
      } else if (name.equals("values") && value == JsonToken.START_ARRAY) {
        while (json.nextToken() == JsonToken.START_ARRAY) {
          require(json.nextToken().isNumeric(), json);
          long millis = Math.round(json.getDoubleValue() * 1000);
          json.nextToken();
          double number = number(json.getString());
          require(json.nextToken() == JsonToken.END_ARRAY, json);
          points.take(labels, millis, number);
        }
      } else {
        json.skipChildren();
      }
    }
  }

  private static double number(String text) {
    try {
      return Double.parseDouble(text.replace("Inf", "Infinity"));
    } catch (NumberFormatException e) {
      return Double.NaN;
    }
  }

  private static void require(boolean holds, JsonParser json) {
    if (!holds) {
      throw new Unreachable(
          "The metrics server's answer is not shaped as its API says, at byte %d."
              .formatted(json.currentLocation().getByteOffset()),
          null);
    }
  }
}
