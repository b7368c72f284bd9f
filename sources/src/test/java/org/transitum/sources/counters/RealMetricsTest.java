package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.counters.OpenMetricsReader.Sample;
import org.transitum.sources.counters.PrometheusReader.Address;
import org.transitum.sources.inventory.MariaDbServer;
import org.transitum.sources.inventory.PostgresBinaries;

/** Debian's Prometheus and its exporters, against real servers: the names we read are theirs. */
class RealMetricsTest {
  private static final Instant START = Instant.parse("2026-11-20T00:00:00Z");
  @TempDir Path folder;
  private final List<Process> processes = new ArrayList<>();

  @AfterEach
  void stop() throws InterruptedException {
    for (Process process : processes) {
      process.destroy();
      process.waitFor(10, TimeUnit.SECONDS);
    }
  }

  private static int freePort() throws IOException {
    try (ServerSocket free = new ServerSocket(0)) {
      return free.getLocalPort();
    }
  }

  private void run(Map<String, String> environment, String... command) throws IOException {
    ProcessBuilder builder =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log-" + processes.size()).toFile());
    builder.environment().putAll(environment);
    processes.add(builder.start());
  }

  private static String page(int port, String path) throws Exception {
    HttpClient http = HttpClient.newHttpClient();
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .timeout(Duration.ofSeconds(20))
            .build();
    for (int i = 0; ; i++) {
      try {
        var answer = http.send(request, BodyHandlers.ofString());
        if (answer.statusCode() == 200) {
          return answer.body();
        }
      } catch (IOException e) {
        if (i > 100) {
          throw e;
        }
      }
      Thread.sleep(200);
    }
  }

  /** Metrics that a rule of the standard mapping would take from an exporter's page. */
  private static Set<String> taken(String page) {
    Set<String> taken = new TreeSet<>();
    page.lines()
        .filter(line -> !line.isEmpty() && line.charAt(0) != '#')
        .map(Sample::parse)
        .forEach(
            sample ->
                MetricMapping.standard().rules().stream()
                    .filter(rule -> rule.sign(sample.metric(), sample.labels()) != 0)
                    .filter(
                        rule ->
                            rule.kind() != ObjectKind.DATABASE
                                || sample.labels().containsKey(rule.database()))
                    .forEach(rule -> taken.add(sample.metric())));
    return taken;
  }

  private static Set<String> named(String prefix) {
    Set<String> names = new TreeSet<>();
    MetricMapping.standard()
        .rules()
        .forEach(
            rule -> {
              names.addAll(rule.metrics());
              names.addAll(rule.minus());
            });
    names.removeIf(name -> !name.startsWith(prefix));
    return names;
  }

  @Test
  void theHostExporterTellsWhatTheMappingNames() throws Exception {
    int port = freePort();
    run(Map.of(), "prometheus-node-exporter", "--web.listen-address=127.0.0.1:" + port);
    assertThat(taken(page(port, "/metrics")))
        .containsAll(Set.of("node_cpu_seconds_total", "node_memory_MemTotal_bytes"))
        .isSubsetOf(named("node_"));
  }

  @Test
  void thePostgresExporterTellsWhatTheMappingNames() throws Exception {
    int port = freePort();
    try (EmbeddedPostgres postgres = PostgresBinaries.start("18")) {
      run(
          Map.of(
              "DATA_SOURCE_NAME",
              "postgresql://postgres@127.0.0.1:%d/postgres?sslmode=disable"
                  .formatted(postgres.getPort())),
          "prometheus-postgres-exporter",
          "--web.listen-address=127.0.0.1:" + port);
      assertThat(taken(page(port, "/metrics"))).isEqualTo(named("pg_"));
    }
  }

  @Test
  void theMariaDbExporterTellsWhatTheMappingNames() throws Exception {
    int port = freePort();
    try (MariaDbServer server = MariaDbServer.start()) {
      server.execute(
          "create database shop",
          "create table shop.t (id int primary key)",
          "create user exporter identified by 'secret'",
          "grant all privileges on *.* to exporter");
      Path config = folder.resolve("my.cnf");
      Files.writeString(
          config,
          "[client]\nuser=exporter\npassword=secret\nhost=127.0.0.1\nport=%d\n"
              .formatted(server.port()));
      run(
          Map.of("DATA_SOURCE_NAME", "exporter:secret@(127.0.0.1:%d)/".formatted(server.port())),
          "prometheus-mysqld-exporter",
          "--config.my-cnf=" + config,
          "--collect.info_schema.tables",
          "--web.listen-address=127.0.0.1:" + port);
      assertThat(taken(page(port, "/metrics"))).isEqualTo(named("mysql_"));
    }
  }

  @Test
  void aRealServerAnswersTheRangesAsked() throws Exception {
    Path dump = folder.resolve("dump.txt");
    StringBuilder text = new StringBuilder("# TYPE pg_stat_database_xact_commit counter\n");
    for (int i = 0; i <= 36 * 60; i++) {
      text.append("pg_stat_database_xact_commit_total{instance=\"pg-03:9187\",datname=\"orders\"} ")
          .append(i * 300L)
          .append(' ')
          .append(START.getEpochSecond() + i * 60L)
          .append('\n');
    }
    Files.writeString(dump, text + "# EOF\n");
    Path data = folder.resolve("data");
    Process backfill =
        new ProcessBuilder(
                "promtool",
                "tsdb",
                "create-blocks-from",
                "openmetrics",
                dump.toString(),
                data.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("promtool").toFile())
            .start();
    assertThat(backfill.waitFor(60, TimeUnit.SECONDS)).isTrue();
    Path config = folder.resolve("prometheus.yml");
    Files.writeString(config, "scrape_configs: []\n");
    int port = freePort();
    run(
        Map.of(),
        "prometheus",
        "--config.file=" + config,
        "--storage.tsdb.path=" + data,
        "--storage.tsdb.retention.time=3650d",
        "--web.listen-address=127.0.0.1:" + port);
    page(port, "/-/ready");
    MetricMapping mapping =
        MetricMapping.read(
            "m.json",
            """
            {"rules": [{"counter": "transactions_total", "metrics": ["pg_stat_database_xact_commit_total"],
              "of": "database", "database": "datname", "where": {"datname": "!template[01]"}}]}
            """);
    TakenDays sink = new TakenDays("PG-3/orders");
    MetricsRead read =
        new PrometheusReader(
                Address.of("http://127.0.0.1:" + port, null, null),
                mapping,
                new MetricTargets((kind, target) -> target.equals("pg-03:9187") ? "PG-3" : null))
            .read(
                START, START.plus(Duration.ofHours(36)), Duration.ofMinutes(5), sink, words -> {});
    assertThat(read.unknownTargets()).isEmpty();
    assertThat(sink.values("PG-3/orders transactions_total"))
        .hasSizeBetween(425, 433)
        .containsOnly(5.0);
  }
}
