package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** From files to a planned wave and a landed database, over HTTP, step by step. */
@TestMethodOrder(OrderAnnotation.class)
class JourneyTest {
  private static TestServer server;
  private static Client lead;
  private static Client engineer;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    engineer = server.as(Role.ENGINEER);
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static final String DATABASES =
      """
      instance,database,size_bytes,criticality,permitted_outage_minutes,disposition
      PG-1,orders,10737418240,high,240,move
      PG-1,stock,21474836480,medium,240,move
      PG-1,old,1073741824,low,1440,retire
      """;

  private static JsonNode read(String name, String content) {
    return lead.file("/api/v1/inventory/readings", name, content).body().path("reading");
  }

  private static Answer accept(JsonNode reading, Object body) {
    return lead.post("/api/v1/inventory/readings/" + reading.path("id").asLong() + "/accept", body);
  }

  private static JsonNode databases() {
    return lead.get("/api/v1/inventory/table?kind=DATABASE").body().path("keys");
  }

  @Test
  @Order(1)
  void aFileBecomesADifferenceAndReadingItAgainChangesNothing() {
    JsonNode servers =
        read("servers.csv", "instance,host,engine,cpu_cores,cpu_index\nPG-1,h1,PostgreSQL,8,1.0\n");
    assertThat(accept(servers, Map.of()).body().path("changes").asInt()).isEqualTo(2);
    JsonNode databases = read("databases.csv", DATABASES);
    assertThat(databases.path("added").asInt()).isEqualTo(3);
    assertThat(databases()).isEmpty();
    accept(databases, Map.of());
    assertThat(databases()).hasSize(3);
    assertThat(read("databases.csv", DATABASES).path("changes")).isEmpty();
  }

  @Test
  @Order(2)
  void onlyTheChosenChangesAreTakenAndTheRestIsOfferedAgain() {
    String next = DATABASES.replace("10737418240", "11737418240").replace(",low,", ",medium,");
    JsonNode reading = read("databases.csv", next);
    assertThat(reading.path("changed").asInt()).isEqualTo(2);
    accept(reading, Map.of("changes", List.of("DATABASE:PG-1/orders")));
    JsonNode again = read("databases.csv", next);
    assertThat(again.path("changes")).hasSize(1);
    assertThat(again.path("changes").get(0).path("key").asString()).isEqualTo("PG-1/old");
    JsonNode without = read("databases.csv", next.replaceAll("(?m)^PG-1,old.*\n", ""));
    assertThat(without.path("gone").asInt()).isEqualTo(1);
  }

  @Test
  @Order(3)
  void twoPeopleStatingTheSameFactSeeBothValues() {
    Map<String, Object> mine =
        Map.of(
            "kind",
            "DATABASE",
            "key",
            "PG-1/orders",
            "attribute",
            "owner",
            "value",
            "Ann",
            "pinned",
            false);
    assertThat(lead.put("/api/v1/inventory/object/fact", mine, 0).status()).isEqualTo(200);
    Map<String, Object> other =
        Map.of(
            "kind",
            "DATABASE",
            "key",
            "PG-1/orders",
            "attribute",
            "owner",
            "value",
            "Bo",
            "pinned",
            false);
    Answer second = engineer.put("/api/v1/inventory/object/fact", other, 0);
    assertThat(second.status()).isEqualTo(412);
    assertThat(second.body().path("theirs").asString()).isEqualTo("Ann");
    assertThat(second.body().path("yours").asString()).isEqualTo("Bo");
    long version = second.body().path("version").asLong();
    assertThat(engineer.put("/api/v1/inventory/object/fact", other, version).status())
        .isEqualTo(200);
  }

  @Test
  @Order(4)
  void aPinnedFactIsLeftAloneByTheNextFile() {
    JsonNode size = fact("PG-1/stock", "size_bytes");
    Map<String, Object> pin =
        Map.of(
            "kind",
            "DATABASE",
            "key",
            "PG-1/stock",
            "attribute",
            "size_bytes",
            "value",
            "5",
            "pinned",
            true,
            "reason",
            "measured by hand");
    assertThat(
            lead.put("/api/v1/inventory/object/fact", pin, size.path("counts").path("id").asLong())
                .status())
        .isEqualTo(200);
    assertThat(read("databases.csv", DATABASES).path("changes").toString())
        .doesNotContain("PG-1/stock");
    assertThat(fact("PG-1/stock", "size_bytes").path("counts").path("value").asString())
        .isEqualTo("5");
  }

  private static JsonNode fact(String key, String attribute) {
    for (JsonNode fact :
        lead.get("/api/v1/inventory/object?kind=DATABASE&key=" + key).body().path("attributes")) {
      if (fact.path("attribute").asString().equals(attribute)) {
        return fact;
      }
    }
    throw new AssertionError(attribute);
  }

  @Test
  @Order(5)
  void countersAreTakenWholeOrNotAtAll() {
    StringBuilder csv = new StringBuilder("object,counter,time,value\n");
    for (int i = 0; i < 12 * 24 * 9; i++) {
      long at = 1_790_000_100L + i * 300L;
      csv.append("PG-1/orders,cpu_cores,").append(at).append(i % 20 == 0 ? ",3.0\n" : ",1.0\n");
      csv.append("PG-1/orders,working_set_bytes,").append(at).append(",4294967296\n");
    }
    Answer broken =
        lead.job(
            lead.file("/api/v1/counters/imports", "c.csv", csv + "PG-1/orders,cpu_cores,soon,1\n"));
    assertThat(broken.body().path("state").asString()).isEqualTo("FAILED");
    assertThat(broken.body().path("problems").get(0).path("row").asLong()).isEqualTo(5186);
    assertThat(sizing("PG-1/orders").path("series")).isEmpty();
    Answer whole = lead.job(lead.file("/api/v1/counters/imports", "c.csv", csv.toString()));
    assertThat(whole.body().path("message").asString()).isEqualTo("5,184 samples of 2 series");
    assertThat(sizing("PG-1/orders").path("series")).hasSize(2);
    lead.job(lead.file("/api/v1/counters/imports", "c.csv", csv.toString()));
    assertThat(demand("PG-1/orders", "CPU").path("measured").asDouble()).isEqualTo(1.0);
  }

  private static JsonNode sizing(String key) {
    return lead.get("/api/v1/sizing/database?key=" + key).body();
  }

  private static JsonNode demand(String key, String dimension) {
    for (JsonNode value : sizing(key).path("demand")) {
      if (value.path("dimension").asString().equals(dimension)) {
        return value;
      }
    }
    throw new AssertionError(dimension);
  }

  @Test
  @Order(6)
  void theFitComesFromTheCatalogueAndTheUnknownIsSaid() throws Exception {
    assertThat(lead.get("/api/v1/sizing").body().has("catalogue")).isFalse();
    String catalogue =
        new String(
            org.transitum.demo.DemoEstate.class
                .getResourceAsStream("/demo/catalogue.json")
                .readAllBytes(),
            java.nio.charset.StandardCharsets.UTF_8);
    assertThat(lead.send("PUT", "/api/v1/sizing/catalogue?name=c.json", catalogue, null).status())
        .isEqualTo(200);
    JsonNode estate = lead.get("/api/v1/sizing").body();
    assertThat(estate.path("sized").asInt()).isEqualTo(1);
    assertThat(estate.path("unsized").asInt()).isEqualTo(1);
    assertThat(estate.path("rows").get(1).path("reason").asString())
        .contains("CPU unknown: collect cpu_cores");
    assertThat(sizing("PG-1/orders").path("reason").asString())
        .contains("is the cheapest that fits");
    JsonNode higher = lead.get("/api/v1/sizing?percentile=99&headroomPercent=100").body();
    assertThat(higher.path("monthlyPrice").asDouble())
        .isGreaterThan(estate.path("monthlyPrice").asDouble());
    assertThat(higher.path("changed").asInt()).isEqualTo(1);
    assertThat(lead.get("/api/v1/sizing?percentile=20").status()).isEqualTo(422);
  }

  @Test
  @Order(7)
  void boundTiesMakeAGroupAndUnknownDatabasesAreNamed() {
    Answer bad =
        lead.file(
            "/api/v1/dependencies/imports", "t.csv", "from,to,kind\nPG-1/orders,PG-9/x,bound\n");
    assertThat(bad.status()).isEqualTo(422);
    assertThat(bad.detail()).contains("t.csv, row 2, column to", "PG-9/x");
    lead.file(
        "/api/v1/dependencies/imports", "t.csv", "from,to,kind\nPG-1/orders,PG-1/stock,bound\n");
    JsonNode groups = lead.get("/api/v1/waves").body().path("groups");
    assertThat(groups).hasSize(1);
    assertThat(groups.get(0).path("members")).hasSize(2);
  }

  @Test
  @Order(8)
  void wavesArePlannedMovedByHandAndToldWhatBreaks() {
    lead.file(
        "/api/v1/waves/imports",
        "w.csv",
        """
        kind,wave,name,starts_at,ends_at,max_databases,max_gib
        window,W01,First,2099-01-02T20:00Z,2099-01-03T04:00Z,1,1000
        window,W02,Second,2099-01-09T20:00Z,2099-01-10T04:00Z,5,1000
        """);
    Answer plan = lead.post("/api/v1/waves/plans", Map.of());
    assertThat(plan.body().path("moves").get(0).path("to").asString()).isEqualTo("W02");
    lead.post("/api/v1/waves/plans/" + plan.body().path("id").asLong() + "/accept", Map.of());
    JsonNode preview = lead.get("/api/v1/waves/preview?group=PG-1/orders").body();
    assertThat(preview.get(0).path("breaks").get(0).asString())
        .isEqualTo("W01 would hold 2 databases; its limit is 1.");
    assertThat(preview.get(1).path("here").asBoolean()).isTrue();
    Answer stale =
        lead.put("/api/v1/waves/placements", Map.of("group", "PG-1/orders", "wave", "W01"));
    assertThat(stale.status()).isEqualTo(412);
    assertThat(stale.body().path("theirs").asString()).isEqualTo("W02");
    Answer moved =
        lead.put(
            "/api/v1/waves/placements",
            Map.of("group", "PG-1/orders", "seen", "W02", "wave", "W01"));
    assertThat(moved.body().path("waves").get(0).path("breaches")).hasSize(1);
    lead.put(
        "/api/v1/waves/placements", Map.of("group", "PG-1/orders", "seen", "W01", "wave", "W02"));
  }

  @Test
  @Order(9)
  void aDatabaseCrossesStepByStepAndIllegalMovesAreRefused() {
    Answer early = engineer.post("/api/v1/crossings", Map.of("database", "PG-1/orders"));
    assertThat(early.status()).isEqualTo(409);
    assertThat(early.detail()).contains("is planned; only a prepared database can cross");
    engineer.put(
        "/api/v1/crossings/places", Map.of("database", "PG-1/orders", "place", "PREPARED"));
    engineer.post("/api/v1/crossings", Map.of("database", "PG-1/orders"));
    assertThat(move("COPY").detail()).contains("nobody is assigned");
    engineer.put("/api/v1/crossings/X-0001/owner", Map.of("owner", "engineer"), version());
    move("COPY");
    assertThat(move("FOLLOW").detail()).contains("the copy stands at 0%");
    report(Map.of("progress", 1.0));
    move("FOLLOW");
    report(Map.of("lagSeconds", 12));
    assertThat(move("SWITCH").detail()).contains("still 12 s behind");
    report(Map.of("lagSeconds", 0));
    move("SWITCH");
    move("PROVE");
    assertThat(move("FINISH").body().path("stage").asString()).isEqualTo("DONE");
    assertThat(place("PG-1/orders")).isEqualTo("LANDED");
    engineer.put("/api/v1/crossings/places", Map.of("database", "PG-1/orders", "place", "SETTLED"));
    assertThat(place("PG-1/orders")).isEqualTo("SETTLED");
    Answer moved =
        lead.put(
            "/api/v1/waves/placements",
            Map.of("group", "PG-1/orders", "seen", "W02", "wave", "W01"));
    assertThat(moved.status()).isEqualTo(409);
  }

  private static long version() {
    return lead.get("/api/v1/crossings/X-0001").body().path("version").asLong();
  }

  private static Answer move(String move) {
    return engineer.post("/api/v1/crossings/X-0001/moves", Map.of("move", move), version());
  }

  private static void report(Map<String, ?> report) {
    assertThat(engineer.post("/api/v1/crossings/X-0001/reports", report, version()).status())
        .isEqualTo(200);
  }

  private static String place(String database) {
    for (JsonNode place : lead.get("/api/v1/crossings/places").body()) {
      if (place.path("database").asString().equals(database)) {
        return place.path("place").asString();
      }
    }
    throw new AssertionError(database);
  }

  @Test
  @Order(10)
  void theJournalTellsWhoDidWhatFromWhatToWhat() {
    JsonNode entries = lead.get("/api/v1/journal?kind=DATABASE&key=PG-1/orders").body();
    assertThat(entries.get(0).path("person").asString()).isEqualTo("engineer");
    assertThat(entries.get(0).path("fromValue").asString()).isEqualTo("LANDED");
    assertThat(entries.get(0).path("toValue").asString()).isEqualTo("SETTLED");
    List<String> attributes = new java.util.ArrayList<>();
    entries.forEach(entry -> attributes.add(entry.path("attribute").asString("")));
    assertThat(attributes)
        .contains("stage", "wave", "owner", "place", "progress", "lag_seconds", "size_bytes");
    String before = lead.get("/api/v1/journal?kind=WAVE").body().get(0).path("at").asString();
    JsonNode then = lead.get("/api/v1/overview/picture?at=" + before).body();
    assertThat(then.path("marks").toString())
        .contains("\"place\":\"UNPLANNED\"")
        .doesNotContain("SETTLED");
  }

  @Test
  @Order(11)
  void twoPeopleMovingTheSameCrossingSeeBothValues() {
    engineer.put("/api/v1/crossings/places", Map.of("database", "PG-1/stock", "place", "PREPARED"));
    Answer set =
        engineer.post("/api/v1/crossings", Map.of("database", "PG-1/stock", "owner", "engineer"));
    long version = set.body().path("version").asLong();
    engineer.post("/api/v1/crossings/X-0002/moves", Map.of("move", "COPY"), version);
    Answer second = lead.post("/api/v1/crossings/X-0002/reports", Map.of("progress", 0.5), version);
    assertThat(second.status()).isEqualTo(412);
    assertThat(second.body().path("theirs").asString()).isEqualTo("copying");
  }
}
