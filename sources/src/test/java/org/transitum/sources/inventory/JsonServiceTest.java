package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.InvalidValue;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.counters.ServerSampler;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.standins.StandIns;

/** Other engines over HTTP, against the stand-ins and against services that misbehave. */
class JsonServiceTest {
  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");

  private static StandIns standIns;

  @BeforeAll
  static void start() throws Exception {
    standIns = StandIns.start(StandIns.demo(), Clock.fixed(NOON, ZoneOffset.UTC), 300);
  }

  @AfterAll
  static void stop() {
    standIns.close();
  }

  private static ServerAddress address(String path) {
    return new ServerAddress(
        "127.0.0.1", standIns.port(), path, StandIns.USER, StandIns.PASSWORD, TlsMode.DISABLE);
  }

  private static ServerReading read(String instance) {
    return ServerReader.of(ReadableEngine.OTHER).read(address(instance), instance, NOON);
  }

  private static List<String> databases(ServerReading read) {
    return read.reading().objects().stream()
        .filter(object -> object.kind() == ObjectKind.DATABASE)
        .map(ReadObject::key)
        .toList();
  }

  @Test
  void tellsFactsAndTiesOfAnyEngine() {
    ServerReading read = read("HEAD-MS-02");
    ReadObject instance =
        read.reading().objects().stream()
            .filter(object -> object.kind() == ObjectKind.INSTANCE)
            .findFirst()
            .orElseThrow();
    assertThat(instance.values())
        .containsEntry(Attribute.ENGINE, "SQL Server")
        .containsEntry(Attribute.PORT, "1433")
        .containsEntry(Attribute.LOG_MODE, "full");
    assertThat(databases(read)).contains("HEAD-MS-02/projects", "HEAD-MS-02/site_photos");
    assertThat(read.ties()).extracting(ServerReading.SeenTie::how).contains("linked server LEDGER");
    assertThat(read.reading().at()).isEqualTo(NOON);
    assertThat(read.reading().source()).isEqualTo("server HEAD-MS-02");
  }

  @Test
  void keepsWhatAHalfPermittedServerTellsAndNamesTheRest() {
    ServerReading read = read("ORCH-OR-01");
    assertThat(databases(read)).hasSize(4);
    assertThat(read.reading().objects())
        .filteredOn(object -> object.kind() == ObjectKind.DATABASE)
        .allSatisfy(
            object ->
                assertThat(object.values())
                    .containsKey(Attribute.SIZE_BYTES)
                    .doesNotContainKey(Attribute.TABLES));
    assertThat(read.reading().unread()).hasSize(5);
  }

  @Test
  void seesWhatChangedBetweenTwoReadings() {
    assertThat(databases(read("HEAD-OR-02"))).contains("HEAD-OR-02/model_acc");
    assertThat(databases(read("HEAD-OR-02")))
        .contains("HEAD-OR-02/model_2027")
        .doesNotContain("HEAD-OR-02/model_acc");
  }

  @Test
  void waitsForASlowServer() {
    assertThat(databases(read("TIDE-MS-01"))).hasSize(3);
  }

  @Test
  void saysThatAServerRefuses() {
    assertThatThrownBy(() -> read("TIDE-DB-01"))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("refuses transitum (401)");
  }

  @Test
  void samplesAgreeWithTheTimeBetweenThem() throws Exception {
    Duration quarter = Duration.ofMinutes(15);
    try (StandIns later =
        StandIns.start(StandIns.demo(), Clock.fixed(NOON.plus(quarter), ZoneOffset.UTC), 0)) {
      Map<String, Double> before = samples(standIns.port());
      Map<String, Double> after = samples(later.port());
      String key = "HEAD-MS-02/projects " + Counter.TRANSACTIONS_TOTAL;
      double rate = (after.get(key) - before.get(key)) / quarter.toSeconds();
      // 38 a second over the day, 1.9 times as many at noon
      assertThat(rate).isBetween(70.0, 73.0);
    }
  }

  private static Map<String, Double> samples(int port) {
    ServerAddress address =
        new ServerAddress(
            "127.0.0.1", port, "HEAD-MS-02", StandIns.USER, StandIns.PASSWORD, TlsMode.DISABLE);
    return ServerSampler.of(ReadableEngine.OTHER).sample(address, "HEAD-MS-02").stream()
        .collect(Collectors.toMap(s -> s.object() + " " + s.counter(), Sample::value));
  }

  /** What a service that misbehaves makes the reader say. */
  private static String told(int status, String type, String body) throws Exception {
    HttpServer http =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    http.createContext(
        "/",
        exchange -> {
          try (exchange) {
            byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", type);
            exchange.sendResponseHeaders(status, bytes.length);
            exchange.getResponseBody().write(bytes);
          }
        });
    http.start();
    try {
      ServerAddress address =
          new ServerAddress(
              "127.0.0.1", http.getAddress().getPort(), "", "u", "p", TlsMode.DISABLE);
      ServerReader.of(ReadableEngine.OTHER).read(address, "X-1", NOON);
      return "read";
    } catch (Unreachable e) {
      return e.getMessage();
    } finally {
      http.stop(0);
    }
  }

  private static String document(String objects) {
    return """
        {"format":"transitum-reading","version":1,"instance":"X-1","read_at":"2026-11-24T12:00:00Z",
         "objects":[%s]}
        """
        .formatted(objects);
  }

  @Test
  void saysWhatIsWrongWithAnAnswer() throws Exception {
    assertThat(told(200, "text/html", "<h1>Portal</h1>")).contains("text/html instead of JSON");
    assertThat(told(500, "text/plain", "out of memory")).contains("answered 500: out of memory");
    assertThat(told(200, "application/json", "{\"format\":")).contains("Not JSON");
    assertThat(told(200, "application/json", "{}")).contains("format");
    assertThat(
            told(
                200,
                "application/json",
                document("{\"kind\":\"database\",\"key\":\"Y-2/a\",\"facts\":{}}")))
        .contains("\"Y-2/a\" is not of X-1");
    assertThat(
            told(
                200,
                "application/json",
                document("{\"kind\":\"instance\",\"key\":\"X-1\",\"facts\":{\"port\":\"many\"}}")))
        .contains("/objects/0/facts/port");
    assertThat(
            told(
                200,
                "application/json",
                document("{\"kind\":\"instance\",\"key\":\"X-1\",\"facts\":{\"tables\":3}}")))
        .contains("no fact of this kind of object (instance)");
  }

  @Test
  void asksForTlsThatIsVerifiedOrNone() {
    ServerAddress address = new ServerAddress("127.0.0.1", 1, "", "u", "p", TlsMode.PREFER);
    assertThatThrownBy(() -> ServerReader.of(ReadableEngine.OTHER).read(address, "X-1", NOON))
        .isInstanceOf(InvalidValue.class);
  }

  @Test
  void aReadingIsTheSameAfterItsWayThroughAFile() {
    ServerReading read = read("HEAD-MS-02");
    byte[] file = ReadingJson.write("HEAD-MS-02", read);
    assertThat(ReadingJson.read("r.json", new java.io.ByteArrayInputStream(file), "HEAD-MS-02"))
        .isEqualTo(read);
  }
}
