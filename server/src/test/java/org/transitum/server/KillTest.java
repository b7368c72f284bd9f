package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** A server that is killed in the middle of an import keeps all of it or nothing. */
class KillTest {

  /**
   * What the killed server runs: reads a file that never ends and says when it is in the middle.
   */
  public static final class Victim {
    private Victim() {}

    public static void main(String[] args) {
      TestServer server = TestServer.at(Path.of(args[0]));
      Client lead = server.as(Role.LEAD);
      lead.file("/api/v1/inventory/readings", "d.csv", "instance,database\nA,one\nA,two\n");
      lead.post("/api/v1/inventory/readings/1/accept", Map.of());
      StringBuilder csv = new StringBuilder("object,counter,time,value\n");
      for (int i = 0; i < 3_000_000; i++) {
        csv.append("A/one,cpu_cores,").append(1_500_000_000L + i * 60L).append(",1\n");
      }
      lead.file("/api/v1/counters/imports", "c.csv", csv.toString());
      while (true) {
        String progress = lead.get("/api/v1/jobs/1").body().path("progress").asString("");
        if (progress.contains("rows read")) {
          System.out.println("in the middle: " + progress);
        }
      }
    }
  }

  @Test
  void nothingOfAnInterruptedImportIsStoredAndTheFileOpens() throws Exception {
    Path data = Files.createTempDirectory(Path.of("target"), "kill-").toAbsolutePath();
    Process process =
        new ProcessBuilder(
                ProcessHandle.current().info().command().orElse("java"),
                "-Xmx1g",
                "-cp",
                System.getProperty("java.class.path"),
                Victim.class.getName(),
                data.toString())
            .redirectError(new File(data.toFile(), "errors.txt"))
            .start();
    try (var lines = process.inputReader()) {
      String line = lines.readLine();
      while (line != null && !line.startsWith("in the middle")) {
        line = lines.readLine();
      }
      assertThat(line).as(Files.readString(data.resolve("errors.txt"))).isNotNull();
    } finally {
      process.destroyForcibly();
      process.waitFor(20, TimeUnit.SECONDS);
    }
    try (TestServer again = TestServer.at(data)) {
      Client lead = again.as(Role.LEAD);
      assertThat(lead.get("/api/v1/inventory/table?kind=DATABASE").body().path("keys")).hasSize(2);
      JsonNode job = lead.get("/api/v1/jobs/1").body();
      assertThat(job.path("state").asString()).isEqualTo("FAILED");
      assertThat(job.path("message").asString()).contains("The server stopped in the middle");
      assertThat(lead.get("/api/v1/sizing/database?key=A/one").body().path("series")).isEmpty();
    }
  }
}
