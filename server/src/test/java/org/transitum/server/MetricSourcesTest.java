package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** Metrics servers that a lead lists, and files of metrics. */
class MetricSourcesTest {
  private static TestServer server;
  private static Client lead;
  private static HttpServer metrics;
  private static String authorization = "";

  @BeforeAll
  static void start() throws IOException {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    SmallEstate.accept(
        lead,
        "servers.csv",
        "instance,host,engine,cpu_cores\nPG-1,h1.fennmark.example,PostgreSQL,4\nMY-1,h2,MariaDB,4\n");
    SmallEstate.accept(lead, "databases.csv", SmallEstate.DATABASES);
    metrics = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    metrics.createContext(
        "/api/v1/query_range",
        exchange -> {
          authorization = exchange.getRequestHeaders().getFirst("Authorization");
          String form =
              new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
          byte[] body = answer(form).getBytes(StandardCharsets.UTF_8);
          exchange.getResponseHeaders().set("Content-Type", "application/json");
          exchange.sendResponseHeaders(200, body.length);
          exchange.getResponseBody().write(body);
          exchange.close();
        });
    metrics.start();
  }

  @AfterAll
  static void stop() {
    metrics.stop(0);
    server.close();
  }

  private static String answer(String form) {
    if (!form.contains("numbackends")) {
      return "{\"status\":\"success\",\"data\":{\"result\":[]}}";
    }
    long from = Long.parseLong(form.replaceAll(".*&start=(\\d+).*", "$1"));
    long to = Long.parseLong(form.replaceAll(".*&end=(\\d+).*", "$1"));
    StringBuilder values = new StringBuilder();
    for (long at = from; at <= to; at += 300) {
      values.append(at == from ? "" : ",").append("[").append(at).append(",\"9\"]");
    }
    return "{\"status\":\"success\",\"data\":{\"result\":[%s,%s]}}"
        .formatted(
            "{\"metric\":{\"instance\":\"h1:9187\",\"datname\":\"orders\"},\"values\":["
                + values
                + "]}",
            "{\"metric\":{\"instance\":\"10.0.0.7:9187\",\"datname\":\"crew\"},\"values\":["
                + values
                + "]}");
  }

  private static Map<String, Object> entry(Map<String, Object> more) {
    Map<String, Object> entry = new HashMap<>();
    entry.put("name", "Main");
    entry.put("url", "http://127.0.0.1:" + metrics.getAddress().getPort());
    entry.put("stepSeconds", 300);
    entry.put("targets", Map.of());
    entry.putAll(more);
    return entry;
  }

  private static Answer save(Map<String, Object> more, long version) {
    return lead.put("/api/v1/counters/sources", entry(more), version);
  }

  @Test
  void aListedServerIsReadAndItsTargetsFound() {
    assertThat(save(Map.of("user", "reader", "password", "very-secret-word"), 0).body()).hasSize(1);
    JsonNode job =
        lead.job(lead.post("/api/v1/counters/sources/Main/read?days=2", Map.of())).body();
    assertThat(job.path("message").asString())
        .contains("samples of 1 series; 1 target is not known here: 10.0.0.7:9187");
    assertThat(authorization).startsWith("Basic ");
    assertThat(series("PG-1/orders")).contains("CONNECTIONS");
    assertThat(lead.get("/api/v1/counters/sources").response().body())
        .doesNotContain("very-secret-word");
    Answer stale = save(Map.of("user", "reader"), 7);
    assertThat(stale.status()).isEqualTo(412);
    Answer mapped = save(Map.of("user", "reader", "targets", Map.of("10.0.0.7:9187", "MY-1")), 1);
    assertThat(mapped.status()).as(mapped.toString()).isEqualTo(200);
    job = lead.job(lead.post("/api/v1/counters/sources/Main/read?days=2", Map.of())).body();
    assertThat(job.path("message").asString()).contains("of 2 series").doesNotContain("not known");
    assertThat(series("MY-1/crew")).contains("CONNECTIONS");
    Answer elsewhere = save(Map.of("user", "reader", "url", "http://127.0.0.1:1"), 2);
    assertThat(elsewhere.detail())
        .as("a stored password never goes to another address")
        .contains("Enter the password of reader");
  }

  private static String series(String database) {
    return lead.get("/api/v1/sizing/database?key=" + database).body().path("series").toString();
  }

  @Test
  void whatCannotBeListedIsRefused() {
    assertThat(save(Map.of("name", "Bad", "url", "file:///etc/passwd"), 0).detail())
        .contains("no address of a metrics server");
    assertThat(save(Map.of("name", "Bad", "stepSeconds", 5), 0).detail()).contains("60 to 3,600");
    assertThat(save(Map.of("name", "Bad", "mapping", "{\"rules\": []}"), 0).status())
        .isEqualTo(422);
    assertThat(lead.post("/api/v1/counters/sources/None/read", Map.of()).status()).isEqualTo(404);
    assertThat(
            lead.get("/api/v1/counters/sources/standard-mapping").body().path("mapping").asString())
        .contains("pg_stat_database_xact_commit");
  }

  @Test
  void aServerThatIsGoneFailsTheJobInWords() {
    save(Map.of("name", "Gone", "url", "http://127.0.0.1:1"), 0);
    JsonNode job =
        lead.job(lead.post("/api/v1/counters/sources/Gone/read?days=1", Map.of())).body();
    assertThat(job.path("state").asString()).isEqualTo("FAILED");
    assertThat(job.path("message").asString()).contains("did not answer", "Check address");
    assertThat(lead.delete("/api/v1/counters/sources/Gone").status()).isEqualTo(200);
    assertThat(lead.delete("/api/v1/counters/sources/Gone").status()).isEqualTo(404);
  }

  @Test
  void metricsAndHostFilesAreKnownByTheirBeginning() {
    StringBuilder text = new StringBuilder("# TYPE pg_database_size_bytes gauge\n");
    StringBuilder sadf = new StringBuilder("# hostname;interval;timestamp;CPU;%iowait;%idle\n");
    long start = Instant.parse("2026-11-20T00:00:00Z").getEpochSecond();
    for (int i = 0; i < 30; i++) {
      text.append("pg_database_size_bytes{instance=\"h1:9187\",datname=\"stock\"} 500 ")
          .append(start + i * 300)
          .append('\n');
      sadf.append("h2;600;2026-11-20 %02d:%02d:00 UTC;-1;0;50\n".formatted(i / 6, i % 6 * 10));
    }
    JsonNode open =
        lead.job(lead.file("/api/v1/counters/imports", "m.txt", text + "# EOF\n")).body();
    assertThat(open.path("message").asString()).isEqualTo("30 samples of 1 series");
    assertThat(series("PG-1/stock")).contains("STORAGE");
    JsonNode host =
        lead.job(lead.file("/api/v1/counters/imports", "sa.txt", sadf.toString())).body();
    assertThat(host.path("message").asString()).isEqualTo("30 samples of 1 series");
  }
}
