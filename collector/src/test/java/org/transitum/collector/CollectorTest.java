package org.transitum.collector;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.InvalidValue;
import org.transitum.core.counters.Counter;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.counters.Sample;
import org.transitum.standins.StandIns;

/** Collecting from the stand-ins, with every kind of interruption. */
class CollectorTest {
  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");

  private static StandIns standIns;

  @TempDir private Path folder;
  private final ByteArrayOutputStream told = new ByteArrayOutputStream();
  private final Ticking clock = new Ticking(NOON);

  /** A clock that the test moves on. */
  private static final class Ticking extends Clock {
    private volatile Instant now;

    Ticking(Instant now) {
      this.now = now;
    }

    void forward(Duration by) {
      now = now.plus(by);
    }

    @Override
    public Instant instant() {
      return now;
    }

    @Override
    public ZoneId getZone() {
      return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
      return this;
    }
  }

  @BeforeAll
  static void start() throws IOException {
    standIns = StandIns.start(StandIns.demo(), Clock.systemUTC(), 100);
  }

  @AfterAll
  static void stop() {
    standIns.close();
  }

  @BeforeEach
  void password() throws IOException {
    Path file = folder.resolve("pw");
    Files.writeString(file, StandIns.PASSWORD);
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
  }

  private Path list(String more, String... instances) throws IOException {
    String servers =
        Stream.of(instances)
            .map(
                instance ->
                    "  - {instance: %s, engine: other, host: 127.0.0.1, port: %d, database: %s, user: transitum, password_file: pw, tls: off}\n"
                        .formatted(instance, standIns.port(), instance))
            .collect(Collectors.joining());
    Path file = folder.resolve("list.yaml");
    Files.writeString(file, "site: Bankside\nfolder: kept\n" + more + "servers:\n" + servers);
    return file;
  }

  private Collector open(Path list) throws IOException {
    return Collector.open(
        CollectionList.read(list), clock, new Progress(new PrintStream(told, true), clock, false));
  }

  private String told() {
    return told.toString(StandardCharsets.UTF_8);
  }

  private static Map<String, BundledServer> servers(Path bundle) throws IOException {
    try (BundleFile file = BundleFile.open("bundle", bundle)) {
      return file.manifest().servers().stream()
          .collect(Collectors.toMap(BundledServer::instance, s -> s));
    }
  }

  private static String content(Path bundle, String path) throws IOException {
    try (BundleFile file = BundleFile.open("bundle", bundle);
        InputStream in = file.content(path)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  @Test
  void bundlesWhatAnswersAndSaysWhatDoesNot() throws Exception {
    try (Collector collector = open(list("", "HEAD-MS-02", "TIDE-MS-01", "TIDE-DB-01"))) {
      collector.discover();
      collector.sampleOnce();
      Path bundle = collector.bundle(folder.resolve("b.zip")).file();
      Map<String, BundledServer> servers = servers(bundle);
      assertThat(servers.get("HEAD-MS-02").samples()).isEqualTo(5 * 6 + 2);
      assertThat(servers.get("TIDE-MS-01").reading()).isEqualTo("readings/TIDE-MS-01.json");
      assertThat(servers.get("TIDE-DB-01").reading()).isNull();
      assertThat(servers.get("TIDE-DB-01").problem()).contains("refuses transitum");
      assertThat(content(bundle, "counters/HEAD-MS-02.csv"))
          .startsWith(
              "object,counter,time,value\nHEAD-MS-02/projects,transactions_total,2026-11-24T12:00:00Z,");
    }
    assertThat(told()).contains("of 3  HEAD-MS-02: read, 5 databases");
  }

  @Test
  void goesOnAfterAStopWithoutLosingOrRepeatingASample() throws Exception {
    Path list = list("", "HEAD-MS-02");
    try (Collector collector = open(list)) {
      collector.discover();
      collector.sampleOnce();
    }
    Path hour = folder.resolve("kept/counters/HEAD-MS-02/2026-11-24T12.csv");
    String whole = Files.readString(hour);
    // as if the machine had lost power while a line was written
    Files.writeString(hour, "HEAD-MS-02/projects,transac", StandardOpenOption.APPEND);
    clock.forward(Duration.ofMinutes(70));
    try (Collector collector = open(list)) {
      assertThat(told())
          .contains("going on with the collection that began at 2026-11-24T12:00:00Z");
      collector.sampleOnce();
      Bundles.Made made = collector.bundle(folder.resolve("b.zip"));
      assertThat(made.manifest().from()).isEqualTo(NOON);
      String counters = content(made.file(), "counters/HEAD-MS-02.csv");
      assertThat(counters)
          .startsWith("object,counter,time,value\n" + whole + "HEAD-MS-02/projects,");
      assertThat(counters).contains("2026-11-24T13:10:00Z").endsWith("\n");
      assertThat(made.samples()).isEqualTo(2 * 32);
    }
    // the hour that is over was packed
    assertThat(hour).doesNotExist();
    assertThat(folder.resolve("kept/counters/HEAD-MS-02/2026-11-24T12.csv.gz")).exists();
  }

  @Test
  void aKilledCollectorLeavesAFolderThatCanBeBundled() throws Exception {
    Path list = list("sampling: {every: 10 s}\n", "HEAD-MS-02");
    Process process =
        new ProcessBuilder(
                System.getProperty("java.home") + "/bin/java",
                "-cp",
                System.getProperty("java.class.path"),
                Collect.class.getName(),
                "run",
                list.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile())
            .start();
    Path counters = folder.resolve("kept/counters/HEAD-MS-02");
    for (int i = 0; i < 300 && !(Files.exists(counters) && hasFiles(counters)); i++) {
      Thread.sleep(100);
    }
    process.destroyForcibly().waitFor(10, TimeUnit.SECONDS);
    Path target = folder.resolve("after.zip");
    int exit = Collect.commandLine().execute("bundle", list.toString(), "--to", target.toString());
    assertThat(exit).as(Files.readString(folder.resolve("log"))).isZero();
    assertThat(servers(target).get("HEAD-MS-02").samples()).isGreaterThanOrEqualTo(32);
  }

  private static boolean hasFiles(Path of) throws IOException {
    try (Stream<Path> files = Files.list(of)) {
      return files.findAny().isPresent();
    }
  }

  @Test
  void onlyOneCollectorWorksInAFolder() throws Exception {
    Path list = list("", "HEAD-MS-02");
    try (Collector collector = open(list)) {
      assertThatThrownBy(() -> open(list))
          .isInstanceOf(InvalidValue.class)
          .hasMessageContaining("Another collector");
    }
  }

  @Test
  void stopsWithinItsDiskBudgetWithAWholeBundle() throws Exception {
    CollectionList list = CollectionList.read(list("disk_budget: 1 MB\n", "HEAD-MS-02"));
    try (Store store = Store.open(list.folder(), list.budgetBytes(), NOON)) {
      Instant at = NOON;
      while (store.hasRoom()) {
        assertThat(
                store.keep(
                    "HEAD-MS-02",
                    at,
                    List.of(
                        new Sample(
                            "HEAD-MS-02/projects", Counter.SIZE_BYTES, at.getEpochSecond()))))
            .isTrue();
        at = at.plusSeconds(10);
      }
    }
    try (Collector collector = open(folder.resolve("list.yaml"))) {
      clock.forward(Duration.ofSeconds(1));
      assertThat(collector.run()).isEqualTo(Collector.End.BUDGET);
      Bundles.Made made = collector.bundle(null);
      assertThat(made.samples()).isGreaterThan(10_000);
      assertThat(Files.size(made.file())).isPositive();
    }
    long all = 0;
    try (Stream<Path> files = Files.walk(folder.resolve("kept"))) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        all += Files.size(file);
      }
    }
    assertThat(all).isLessThanOrEqualTo(1 << 20);
  }

  @Test
  void aClockThatGoesBackSpoilsNothing() throws Exception {
    CollectionList list = CollectionList.read(list("", "HEAD-MS-02"));
    List<Sample> samples = List.of(new Sample("HEAD-MS-02", Counter.CONNECTIONS, 4));
    try (Store store = Store.open(list.folder(), list.budgetBytes(), NOON)) {
      assertThat(store.keep("HEAD-MS-02", NOON, samples)).isTrue();
      assertThat(store.keep("HEAD-MS-02", NOON.minusSeconds(60), samples)).isFalse();
      assertThat(store.keep("HEAD-MS-02", NOON.plusSeconds(60), samples)).isTrue();
    }
  }

  /** What a server got pushed. */
  private record Got(String authorization, Path bundle) {}

  @Test
  void pushesWhatIsNewAndTriesAgain() throws Exception {
    List<Got> got = new ArrayList<>();
    List<Integer> answers = new ArrayList<>(List.of(200, 503, 200, 200));
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext(
        "/api/v1/bundles",
        exchange -> {
          try (exchange) {
            Path file = folder.resolve("got-" + got.size() + ".zip");
            Files.write(file, exchange.getRequestBody().readAllBytes());
            got.add(new Got(exchange.getRequestHeaders().getFirst("Authorization"), file));
            byte[] body = "{\"detail\":\"busy\"}".getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(answers.remove(0), body.length);
            exchange.getResponseBody().write(body);
          }
        });
    server.start();
    Path list =
        list(
            "push: {server: 'http://127.0.0.1:%d', token_file: pw}\n"
                .formatted(server.getAddress().getPort()),
            "HEAD-MS-02");
    CollectionList read = CollectionList.read(list);
    try (Collector collector = open(list)) {
      collector.discover();
      collector.sampleOnce();
      assertThat(collector.push(read.push())).isTrue();
      clock.forward(Duration.ofHours(3));
      collector.sampleOnce();
      assertThat(collector.push(read.push())).isFalse();
      assertThat(told()).contains("not pushed, tried again later: 503: busy");
      clock.forward(Duration.ofMinutes(2));
      assertThat(collector.push(read.push())).isTrue();
      clock.forward(Duration.ofHours(3));
      collector.sampleOnce();
      assertThat(collector.push(read.push())).isTrue();
    } finally {
      server.stop(0);
    }
    assertThat(got)
        .hasSize(4)
        .allMatch(g -> g.authorization().equals("Bearer " + StandIns.PASSWORD));
    BundledServer first = servers(got.get(0).bundle()).get("HEAD-MS-02");
    BundledServer last = servers(got.get(3).bundle()).get("HEAD-MS-02");
    assertThat(first.reading()).isNotNull();
    assertThat(last.reading()).as("it was pushed before").isNull();
    // only what came since, but for an hour that makes the first rates whole
    assertThat(last.samples()).as("the last two of three").isEqualTo(2 * 32);
    assertThat(folder.resolve("kept/outbox")).isEmptyDirectory();
  }
}
