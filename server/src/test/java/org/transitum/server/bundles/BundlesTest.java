package org.transitum.server.bundles;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.core.team.Role;
import org.transitum.server.SmallEstate;
import org.transitum.server.TestServer;
import org.transitum.server.TestServer.Client;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.bundles.BundleWriter;
import org.transitum.sources.inventory.ReadingJson;
import org.transitum.sources.inventory.ServerReading;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What a collector pushes, and what its token may not do. */
class BundlesTest {
  private static final JsonMapper JSON = JsonMapper.builder().build();

  @TempDir private Path folder;
  private final String site = "Site " + UUID.randomUUID();
  private static TestServer server;
  private static Client lead;
  private static String token;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    SmallEstate.read(lead);
    token =
        lead.post("/api/v1/team/tokens", Map.of("name", "Bankside"))
            .body()
            .path("secret")
            .asString();
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private record Pushed(int status, JsonNode body) {}

  private Pushed send(String method, String path, String secret, byte[] body) throws Exception {
    HttpResponse<String> response =
        HttpClient.newHttpClient()
            .send(
                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + path))
                    .header("Authorization", "Bearer " + secret)
                    .method(method, BodyPublishers.ofByteArray(body))
                    .build(),
                BodyHandlers.ofString());
    return new Pushed(
        response.statusCode(),
        response.body().isEmpty() ? JSON.createObjectNode() : JSON.readTree(response.body()));
  }

  private Pushed push(Path bundle) throws Exception {
    return send("POST", "/api/v1/bundles?name=b.zip", token, Files.readAllBytes(bundle));
  }

  private static ServerReading reading(String instance, Map<String, Long> sizes) {
    List<ReadObject> objects = new ArrayList<>();
    objects.add(
        new ReadObject(
            ObjectKind.INSTANCE, instance, "settings", Map.of(Attribute.ENGINE, "PostgreSQL")));
    sizes.forEach(
        (name, size) ->
            objects.add(
                new ReadObject(
                    ObjectKind.DATABASE,
                    instance + "/" + name,
                    "catalogue",
                    Map.of(Attribute.SIZE_BYTES, Long.toString(size)))));
    return new ServerReading(
        new Reading(
            "server " + instance,
            Origin.OBSERVED,
            Instant.parse("2026-11-24T10:00:00Z"),
            objects,
            List.of()),
        List.of());
  }

  private Path bundle(String instance, Map<String, Long> sizes) throws IOException {
    return bundle(instance, sizes, true);
  }

  private Path bundle(String instance, Map<String, Long> sizes, boolean withReading)
      throws IOException {
    Path file = folder.resolve(UUID.randomUUID() + ".zip");
    long start = server.bean(org.transitum.server.programme.ProgrammeClock.class).millis() / 1000;
    StringBuilder counters = new StringBuilder("object,counter,time,value\n");
    for (String name : sizes.keySet()) {
      for (int i = 0; i < 20; i++) {
        counters.append(
            "%s/%s,connections,%d,%d%n".formatted(instance, name, start - 7200 + i * 60, 4 + i));
      }
    }
    try (BundleWriter writer = new BundleWriter(file)) {
      String read =
          !withReading
              ? null
              : writer.add(
                  "readings",
                  instance + ".json",
                  out -> out.write(ReadingJson.write(instance, reading(instance, sizes))));
      String samples =
          writer.add(
              "counters",
              instance + ".csv",
              out -> out.write(counters.toString().getBytes(StandardCharsets.UTF_8)));
      Instant now = Instant.ofEpochSecond(start);
      writer.finish(
          UUID.randomUUID(),
          site,
          now,
          now.minusSeconds(7200),
          now,
          List.of(
              new BundledServer(instance, "PostgreSQL", read, samples, 20L * sizes.size(), null)));
    }
    return file;
  }

  /** This test's bundles, the latest first. */
  private List<JsonNode> bundles() {
    return bundles(lead);
  }

  private List<JsonNode> bundles(Client by) {
    return by.get("/api/v1/bundles")
        .body()
        .valueStream()
        .filter(bundle -> bundle.path("site").asString().equals(site))
        .sorted(Comparator.comparing(bundle -> -bundle.path("id").asLong()))
        .toList();
  }

  private static void await(BooleanSupplier holds) throws InterruptedException {
    for (int i = 0; i < 100 && !holds.getAsBoolean(); i++) {
      Thread.sleep(100);
    }
    assertThat(holds.getAsBoolean()).isTrue();
  }

  private void awaitState(String state) throws InterruptedException {
    await(() -> !bundles().isEmpty() && bundles().get(0).path("state").asString().equals(state));
  }

  private boolean measured(String database) {
    return lead.get("/api/v1/counters/coverage?key=" + database).body().size() > 0;
  }

  @Test
  void itsReadingsWaitToBeAcceptedAndItsCountersForWhatTheyAreOf() throws Exception {
    Path bundle = bundle("PG-1", Map.of("orders", 11L << 30, "shadow", 3L << 30));
    Pushed pushed = push(bundle);
    assertThat(pushed.status()).isEqualTo(200);
    awaitState("WAITING");
    JsonNode waiting = bundles().get(0);
    assertThat(waiting.path("person").asString()).isEqualTo("token Bankside");
    assertThat(waiting.path("samples").asInt()).isEqualTo(20);
    assertThat(waiting.path("unknown").toString()).isEqualTo("[\"PG-1/shadow\"]");
    assertThat(waiting.path("waiting")).hasSize(1);
    assertThat(measured("PG-1/orders")).isTrue();
    assertThat(measured("PG-1/shadow")).isFalse();

    long id = waiting.path("id").asLong();
    JsonNode accepted = lead.post("/api/v1/bundles/" + id + "/accept", Map.of()).body();
    assertThat(accepted.path("readings").asInt()).isEqualTo(1);
    assertThat(accepted.path("doubtful").asInt()).isZero();
    awaitState("TAKEN");
    await(() -> measured("PG-1/shadow"));
    assertThat(bundles().get(0).path("samples").asInt()).isEqualTo(40);
    try (Stream<Path> kept = Files.list(server.data().resolve("bundles"))) {
      assertThat(kept.map(Path::getFileName).map(Path::toString))
          .doesNotContain(uid(bundle) + ".zip");
    }
  }

  private static String uid(Path bundle) throws IOException {
    try (BundleFile file = BundleFile.open("bundle", bundle)) {
      return file.manifest().id().toString();
    }
  }

  /** A collector pushes a reading once, then samples every hour, whenever somebody has time. */
  @Test
  void samplesThatCameBeforeTheReadingWasDecidedAreKeptForIt() throws Exception {
    push(bundle("LATE-1", Map.of("orders", 11L << 30)));
    push(bundle("LATE-1", Map.of("orders", 11L << 30), false));
    await(
        () ->
            bundles().size() == 2
                && bundles().stream().allMatch(b -> b.path("state").asString().equals("WAITING")));
    assertThat(bundles().get(0).path("waiting")).isEmpty();
    long first = bundles().get(1).path("id").asLong();
    lead.post("/api/v1/bundles/" + first + "/accept", Map.of());
    await(
        () ->
            bundles().stream()
                .allMatch(
                    b ->
                        b.path("state").asString().equals("TAKEN")
                            && b.path("samples").asInt() == 20));
  }

  @Test
  void theSameBundleTwiceIsTakenOnce() throws Exception {
    Path bundle = bundle("PG-1", Map.of("orders", 11L << 30));
    assertThat(push(bundle).body().path("repeated").asBoolean()).isFalse();
    assertThat(push(bundle).body().path("repeated").asBoolean()).isTrue();
    assertThat(bundles()).hasSize(1);
    awaitState("TAKEN");
  }

  @Test
  void anAlteredBundleIsRefusedAndNothingOfItKept() throws Exception {
    byte[] bytes = Files.readAllBytes(bundle("PG-1", Map.of("orders", 11L << 30)));
    bytes[120] ^= 1;
    Path altered = folder.resolve("altered.zip");
    Files.write(altered, bytes);
    Pushed pushed = push(altered);
    assertThat(pushed.status()).isEqualTo(422);
    assertThat(pushed.body().path("problems").toString()).contains("altered or damaged");
    assertThat(bundles()).isEmpty();
    try (Stream<Path> kept = Files.list(server.data().resolve("uploads"))) {
      assertThat(kept).isEmpty();
    }
  }

  @Test
  void aNewerReadingOfAServerTakesThePlaceOfTheOneThatWaited() throws Exception {
    push(bundle("PG-1", Map.of("orders", 11L << 30)));
    awaitState("TAKEN");
    push(bundle("PG-1", Map.of("orders", 30L << 30)));
    await(() -> bundles().size() == 2 && bundles().get(0).path("state").asString().equals("TAKEN"));
    assertThat(bundles().get(0).path("waiting")).hasSize(1);
    assertThat(bundles().get(1).path("waiting")).isEmpty();
  }

  @Test
  void aDoubtfulReadingWaitsForALook() throws Exception {
    push(bundle("pg-1.example", Map.of("orders", 10737418240L)));
    awaitState("WAITING");
    long id = bundles().get(0).path("id").asLong();
    JsonNode accepted = lead.post("/api/v1/bundles/" + id + "/accept", Map.of()).body();
    assertThat(accepted.path("doubtful").asInt()).isEqualTo(1);
    JsonNode waiting = bundles().get(0).path("waiting").get(0);
    // the same server under another name: its counters follow
    lead.post(
        "/api/v1/inventory/readings/" + waiting.path("id").asLong() + "/accept",
        Map.of("changes", List.of(), "same", Map.of("INSTANCE:pg-1.example", "PG-1")));
    awaitState("TAKEN");
    await(() -> measured("PG-1/orders"));
    assertThat(bundles().get(0).path("unknown")).isEmpty();
  }

  @Test
  void whatWaitsCanBeDropped() throws Exception {
    push(bundle("NEW-1", Map.of("orders", 11L << 30)));
    awaitState("WAITING");
    long id = bundles().get(0).path("id").asLong();
    assertThat(lead.delete("/api/v1/bundles/" + id).status()).isEqualTo(200);
    assertThat(bundles().get(0).path("state").asString()).isEqualTo("DISCARDED");
    assertThat(lead.get("/api/v1/inventory/readings").body().toString()).doesNotContain("NEW-1");
    assertThat(lead.delete("/api/v1/bundles/" + id).status()).isEqualTo(409);
  }

  @Test
  void aTokenDoesNothingElseAndEndsWhenRevoked() throws Exception {
    JsonNode made = lead.post("/api/v1/team/tokens", Map.of("name", "Quayside")).body();
    String other = made.path("secret").asString();
    for (String path :
        List.of(
            "/api/v1/bundles",
            "/api/v1/inventory/readings",
            "/api/v1/team/people",
            "/api/v1/team/tokens",
            "/api/v1/live")) {
      assertThat(send("GET", path, other, new byte[0]).status()).as(path).isEqualTo(403);
    }
    Pushed refused = send("POST", "/api/v1/team/tokens", other, "{\"name\":\"x\"}".getBytes());
    assertThat(refused.status()).isEqualTo(403);
    assertThat(send("POST", "/api/v1/bundles?name=b", "guess", new byte[0]).status())
        .isEqualTo(401);
    JsonNode tokens = lead.get("/api/v1/team/tokens").body();
    assertThat(tokens).hasSize(2);
    assertThat(tokens.toString()).doesNotContain(other);
    assertThat(tokens.get(1).has("lastUsedAt")).isTrue();
    assertThat(lead.post("/api/v1/team/tokens", Map.of("name", "Quayside")).status())
        .isEqualTo(409);

    assertThat(lead.delete("/api/v1/team/tokens/" + made.path("id").asLong()).status())
        .isEqualTo(200);
    assertThat(send("POST", "/api/v1/bundles?name=b", other, new byte[0]).status()).isEqualTo(401);
  }

  /** As if the server had been killed between keeping a bundle and reading it. */
  @Test
  void aBundleThatAStoppedServerLeftIsReadAtTheNextStart() throws Exception {
    Path bundle = bundle("PG-1", Map.of("orders", 11L << 30));
    Path data;
    try (TestServer first = TestServer.start()) {
      data = first.data();
      SmallEstate.read(first.as(Role.LEAD));
    }
    Files.createDirectories(data.resolve("bundles"));
    Files.copy(bundle, data.resolve("bundles").resolve(uid(bundle) + ".zip"));
    try (Connection connection =
            DriverManager.getConnection(
                "jdbc:h2:file:" + data.resolve("transitum"), "transitum", "");
        Statement statement = connection.createStatement()) {
      statement.execute(
          """
          insert into bundle (uid, name, site, person, received_at, from_at, to_at, state, payload)
          values ('%s', 'b.zip', '%s', 'lead', now(), now(), now(), 'RECEIVED',
            '{"servers": [], "unknown": []}')
          """
              .formatted(uid(bundle), site));
    }
    try (TestServer second = TestServer.at(data)) {
      Client again = second.as(Role.LEAD);
      await(() -> bundles(again).get(0).path("state").asString().equals("TAKEN"));
      assertThat(bundles(again).get(0).path("samples").asInt()).isEqualTo(20);
      assertThat(bundles(again).get(0).path("waiting")).hasSize(1);
    }
  }
}
