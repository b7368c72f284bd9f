package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** Counters that are no counters, that fill the disk, or that somebody stops. */
class CountersTest {
  private static final String HEADER = "object,counter,time,value\n";
  private static TestServer server;
  private static Client lead;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    SmallEstate.read(lead);
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static JsonNode imported(String name, String content) {
    return lead.job(lead.file("/api/v1/counters/imports", name, content)).body();
  }

  private static String problem(JsonNode job) {
    assertThat(job.path("state").asString()).isEqualTo("FAILED");
    return job.path("problems").toString();
  }

  private static long uploads(TestServer of) throws IOException {
    Path folder = of.data().resolve("uploads");
    if (!Files.exists(folder)) {
      return 0;
    }
    try (Stream<Path> files = Files.list(folder)) {
      return files.count();
    }
  }

  @Test
  void whatIsWrongIsSaidWithItsRowAndNothingStays() throws Exception {
    assertThat(problem(imported("empty.csv", " "))).contains("empty.csv");
    assertThat(problem(imported("c.csv", "object,counter,when,value\nx,y,z,1\n")))
        .contains("it lacks time", "\"row\":1");
    assertThat(problem(imported("c.csv", HEADER + "PG-1/none,cpu_cores,1790000100,1\n")))
        .contains("PG-1/none", "\"row\":2", "Read its inventory first");
    assertThat(problem(imported("c.csv", HEADER + "PG-1/orders,heat,1790000100,1\n")))
        .contains("no counter known here");
    assertThat(
            problem(
                imported(
                    "c.csv",
                    HEADER
                        + "PG-1/orders,cpu_cores,1790000400,1\nPG-1/orders,cpu_cores,1790000100,1\n")))
        .contains("The time goes back", "\"row\":3");
    assertThat(problem(imported("c.csv", HEADER + "PG-1/orders,cpu_cores,1790000100,-4\n")))
        .contains("finite number from 0 up");
    assertThat(uploads(server)).as("no upload is left behind").isZero();
  }

  @Test
  void aZipNamedCsvIsRecognised() throws Exception {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      zip.putNextEntry(new ZipEntry("c.csv"));
      zip.write(HEADER.getBytes(StandardCharsets.UTF_8));
    }
    var request =
        lead.protectedRequest(
                URI.create(
                    "http://127.0.0.1:" + server.port() + "/api/v1/counters/imports?name=c.csv"))
            .header("Content-Type", "application/octet-stream")
            .POST(BodyPublishers.ofByteArray(bytes.toByteArray()))
            .build();
    long id =
        Long.parseLong(
            lead.http()
                .send(request, BodyHandlers.ofString())
                .body()
                .replaceAll(".*\"id\":(\\d+).*", "$1"));
    JsonNode job = lead.job(lead.get("/api/v1/jobs/" + id)).body();
    assertThat(problem(job)).contains("zip");
  }

  @Test
  void aRunningImportIsCancelledAndLeavesNothing() {
    StringBuilder csv = new StringBuilder(HEADER);
    for (int i = 0; i < 1_500_000; i++) {
      csv.append("MY-1/crew,cpu_cores,").append(1_500_000_000L + i * 60L).append(",1\n");
    }
    Answer started = lead.file("/api/v1/counters/imports", "long.csv", csv.toString());
    String job = "/api/v1/jobs/" + started.body().path("id").asLong();
    lead.delete(job);
    JsonNode ended = lead.job(started).body();
    assertThat(ended.path("state").asString()).isEqualTo("CANCELLED");
    assertThat(ended.path("message").asString()).isEqualTo("Cancelled; nothing of it was stored.");
    assertThat(lead.get("/api/v1/sizing/database?key=MY-1/crew").body().path("series")).isEmpty();
    assertThat(lead.delete(job).detail()).contains("has ended already");
  }

  @Test
  void aDiskWithoutRoomRefusesTheUploadAndKeepsNoPart() throws Exception {
    try (TestServer full = TestServer.start("--transitum.least-free-mib=999999999")) {
      Client its = full.as(Role.LEAD);
      Answer answer = its.file("/api/v1/counters/imports", "c.csv", HEADER);
      assertThat(answer.status()).isEqualTo(422);
      assertThat(answer.detail()).contains("c.csv", "disk has no room");
      assertThat(uploads(full)).isZero();
      assertThat(its.get("/api/v1/jobs").body()).isEmpty();
    }
  }

  @Test
  void aGlanceShowsTheLastFourWeeksWithTheirGaps() {
    long today = System.currentTimeMillis() / 86_400_000L * 86_400L;
    StringBuilder csv = new StringBuilder(HEADER);
    for (long day : new long[] {today - 5 * 86_400, today - 2 * 86_400}) {
      for (int i = 0; i <= 288; i++) {
        csv.append("PG-1/stock,cpu_cores,").append(day + i * 300L).append(",2\n");
      }
    }
    assertThat(imported("g.csv", csv.toString()).path("state").asString()).isEqualTo("DONE");
    JsonNode days =
        SmallEstate.where(lead.get("/api/v1/counters/glances").body(), "key", "PG-1/stock")
            .path("days");
    assertThat(days).hasSize(28);
    assertThat(days.toString()).endsWith("null,null,2.0,null,null,2.0,null,null]");
    JsonNode coverage = lead.get("/api/v1/counters/coverage?key=PG-1/stock").body().get(0);
    assertThat(coverage.path("label").asString()).isEqualTo("CPU");
    assertThat(coverage.path("days")).hasSize(42);
    assertThat(coverage.path("days").toString()).endsWith(",1.0,0.0,0.0,1.0,0.0,0.0]");
  }

  /** Both halves of the same days, stored at the same time: neither takes the other's place. */
  @Test
  void twoFilesAtOnceLoseNothingOfEachOther() {
    long today = System.currentTimeMillis() / 86_400_000L * 86_400L;
    StringBuilder mornings = new StringBuilder(HEADER);
    StringBuilder evenings = new StringBuilder(HEADER);
    for (String database : new String[] {"MY-1", "PG-1/scratch"}) {
      for (int day = 20; day > 0; day--) {
        for (int i = 0; i <= 288; i++) {
          (i <= 144 ? mornings : evenings)
              .append(database)
              .append(",connections,")
              .append(today - day * 86_400L + i * 300L)
              .append(",2\n");
        }
      }
    }
    Answer first = lead.file("/api/v1/counters/imports", "mornings.csv", mornings.toString());
    Answer second = lead.file("/api/v1/counters/imports", "evenings.csv", evenings.toString());
    assertThat(lead.job(first).body().path("state").asString()).isEqualTo("DONE");
    assertThat(lead.job(second).body().path("state").asString()).isEqualTo("DONE");
    for (String database : new String[] {"MY-1", "PG-1/scratch"}) {
      JsonNode coverage = lead.get("/api/v1/counters/coverage?key=" + database).body().get(0);
      assertThat(coverage.path("days").valueStream().filter(day -> day.asDouble() > 0.99))
          .as(database)
          .hasSize(20);
    }
  }
}
