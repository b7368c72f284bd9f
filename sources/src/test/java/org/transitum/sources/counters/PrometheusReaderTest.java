package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.counters.PrometheusReader.Address;
import org.transitum.sources.inventory.Unreachable;

/** A metrics server that behaves, and all the ways in which one does not. */
class PrometheusReaderTest {
  private static final Instant FROM = Instant.parse("2026-11-20T00:00:00Z");
  private static final MetricMapping ONE =
      MetricMapping.read(
          "m.json",
          """
          {"rules": [{"counter": "connections", "metrics": ["pg_stat_database_numbackends"],
            "of": "database", "database": "datname", "where": {"datname": "!template[01]"}}]}
          """);

  private interface Handler {
    void handle(HttpExchange exchange) throws IOException;
  }

  private HttpServer server;
  private Handler handler;
  private final List<String> forms = new ArrayList<>();

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    server.createContext(
        "/api/v1/query_range",
        exchange -> {
          forms.add(
              URLDecoder.decode(
                  new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8),
                  StandardCharsets.UTF_8));
          try {
            handler.handle(exchange);
          } finally {
            exchange.close();
          }
        });
    server.start();
  }

  @AfterEach
  void stop() {
    server.stop(0);
  }

  private static void answer(HttpExchange exchange, int status, String type, String body)
      throws IOException {
    byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
    exchange.getResponseHeaders().set("Content-Type", type);
    exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
    if (bytes.length > 0) {
      exchange.getResponseBody().write(bytes);
    }
  }

  private MetricsRead read(TakenDays sink, MetricMapping mapping, int days) {
    Address address =
        Address.of("http://127.0.0.1:" + server.getAddress().getPort() + "/", null, null);
    return new PrometheusReader(address, mapping, targets())
        .read(FROM, FROM.plus(Duration.ofDays(days)), Duration.ofMinutes(5), sink, words -> {});
  }

  private static MetricTargets targets() {
    return new MetricTargets(
        (kind, target) ->
            target.startsWith("pg-03:") ? (kind == ObjectKind.HOST ? "h3" : "PG-3") : null);
  }

  private void refusedWith(String... words) {
    assertThatThrownBy(() -> read(new TakenDays("PG-3/orders"), ONE, 1))
        .isInstanceOf(Unreachable.class)
        .satisfies(e -> assertThat(e.getMessage()).contains(words));
  }

  private static String series(String labels, int from, int count, String value) {
    StringBuilder values = new StringBuilder();
    for (int i = 0; i < count; i++) {
      long at = FROM.getEpochSecond() + (from + i) * 300L;
      values
          .append(i == 0 ? "" : ",")
          .append("[")
          .append(at)
          .append(",\"")
          .append(value)
          .append("\"]");
    }
    return "{\"metric\":{%s},\"values\":[%s]}".formatted(labels, values);
  }

  private static String success(String... series) {
    return "{\"status\":\"success\",\"warnings\":[\"w\"],\"data\":{\"resultType\":\"matrix\",\"result\":[%s]}}"
        .formatted(String.join(",", series));
  }

  @Test
  void rangesAreReadDayByDayAndSeriesFindTheirDatabases() {
    handler =
        exchange ->
            answer(
                exchange,
                200,
                "application/json",
                success(
                    series(
                        "\"instance\":\"pg-03:9187\",\"datname\":\"orders\"",
                        (forms.size() - 1) * 288,
                        288,
                        "7"),
                    series("\"instance\":\"pg-03:9187\"", (forms.size() - 1) * 288, 288, "99"),
                    series("\"instance\":\"other:9187\",\"datname\":\"x\"", 0, 3, "1")));
    TakenDays sink = new TakenDays("PG-3/orders");
    MetricsRead read = read(sink, ONE, 2);
    assertThat(read.unknownTargets()).containsExactly("other:9187");
    assertThat(sink.series()).containsExactly("PG-3/orders connections");
    assertThat(sink.values("PG-3/orders connections")).hasSizeGreaterThan(570).containsOnly(7.0);
    assertThat(forms).hasSize(3);
    assertThat(forms.get(0))
        .contains(
            "query=sum by (instance,datname) ({__name__=~\"pg_stat_database_numbackends\",datname!~\"template[01]\"})")
        .contains(
            "start="
                + FROM.getEpochSecond()
                + "&end="
                + (FROM.getEpochSecond() + 86_100)
                + "&step=300");
  }

  @Test
  void valuesThatAreNoNumbersAreGaps() {
    handler =
        exchange ->
            answer(
                exchange,
                200,
                "application/json",
                success(
                    series("\"instance\":\"pg-03:1\",\"datname\":\"orders\"", 0, 100, "NaN"),
                    series("\"instance\":\"pg-03:1\",\"datname\":\"stock\"", 0, 100, "+Inf")));
    TakenDays sink = new TakenDays("PG-3/orders", "PG-3/stock");
    assertThat(read(sink, ONE, 0).samples()).isZero();
    assertThat(sink.series()).isEmpty();
  }

  @Test
  void aPageOfHtmlIsNoMetricsServer() {
    handler = exchange -> answer(exchange, 200, "text/html", "<html>Welcome</html>");
    refusedWith("200 with text/html instead of JSON");
  }

  @Test
  void anErrorIsToldAsTheServerTellsIt() {
    handler =
        exchange ->
            answer(
                exchange,
                422,
                "application/json",
                "{\"status\":\"error\",\"errorType\":\"execution\",\"error\":\"too many samples\"}");
    refusedWith("refused the query (422): too many samples");
    handler = exchange -> answer(exchange, 500, "text/plain", "oh no");
    refusedWith("answered 500 with text/plain");
    handler = exchange -> answer(exchange, 401, "text/plain", "");
    refusedWith("asks for a sign-in");
  }

  @Test
  void halfABodyNothingAndWrongShapesAreNamed() {
    String whole = success(series("\"instance\":\"pg-03:1\",\"datname\":\"orders\"", 0, 50, "1"));
    handler =
        exchange -> {
          exchange.getResponseHeaders().set("Content-Type", "application/json");
          exchange.sendResponseHeaders(200, whole.length());
          exchange.getResponseBody().write(whole.substring(0, whole.length() / 2).getBytes());
          exchange.getResponseBody().flush();
        };
    refusedWith("127.0.0.1");
    handler = exchange -> answer(exchange, 200, "application/json", whole.substring(0, 200));
    refusedWith("broke off in the middle");
    handler = exchange -> answer(exchange, 200, "application/json", "");
    refusedWith("not shaped as its API says");
    handler = exchange -> answer(exchange, 200, "application/json", "[1,2]");
    refusedWith("not shaped as its API says");
    handler = HttpExchange::close;
    refusedWith("did not answer");
  }

  @Test
  void anAnswerWithoutEndIsStopped() {
    handler =
        exchange -> {
          exchange.getResponseHeaders().set("Content-Type", "application/json");
          exchange.sendResponseHeaders(200, 0);
          try (OutputStream out = exchange.getResponseBody()) {
            out.write(
                "{\"status\":\"success\",\"data\":{\"result\":[{\"metric\":{},\"values\":["
                    .getBytes(StandardCharsets.UTF_8));
            byte[] point = "[1790000000,\"1\"],".repeat(4_000).getBytes(StandardCharsets.UTF_8);
            for (int i = 0; i < 10_000; i++) {
              out.write(point);
            }
          } catch (IOException e) {
            // the reader hung up, as it should
          }
        };
    refusedWith("larger than 96 MiB");
  }

  @Test
  void addressesThatSmuggleAreRefused() {
    for (String bad :
        new String[] {
          "file:///etc/passwd", "metrics", "http://u:p@h:1", "http://h?x=1", "ftp://h"
        }) {
      assertThatThrownBy(() -> Address.of(bad, null, null)).isInstanceOf(InvalidValue.class);
    }
    assertThat(Address.of(" https://m.example:9090/prom/ ", "u", "secret").toString())
        .isEqualTo("https://m.example:9090/prom");
  }

  @Test
  void whatIsTakenOffAndWhatIsQuotedStandsInTheExpression() {
    MetricRule memory =
        MetricMapping.standard().rules().stream()
            .filter(rule -> !rule.minus().isEmpty())
            .findFirst()
            .orElseThrow();
    assertThat(memory.expression())
        .isEqualTo(
            "sum by (instance) ({__name__=~\"node_memory_MemTotal_bytes\"}) - sum by (instance) ({__name__=~\"node_memory_MemAvailable_bytes\"})");
  }
}
