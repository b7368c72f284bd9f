package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.server.SmallEstate.ok;
import static org.transitum.server.SmallEstate.place;
import static org.transitum.server.SmallEstate.where;

import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** What is left to do, what wants attention, and the picture then and now. */
@TestMethodOrder(OrderAnnotation.class)
class OverviewTest {
  private static TestServer server;
  private static Client lead;
  private static String beforePlanning;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static String left(String station) {
    return where(lead.get("/api/v1/overview/left").body(), "station", station)
        .path("words")
        .asString();
  }

  private static JsonNode mark(JsonNode picture, String database) {
    return where(picture.path("marks"), "database", database);
  }

  @Test
  @Order(1)
  void anEmptyProgrammeHasNothingLeft() {
    assertThat(left("inventory")).isEqualTo("all known");
    assertThat(left("waves")).isEqualTo("all placed");
    assertThat(lead.get("/api/v1/overview/today").body()).isEmpty();
  }

  @Test
  @Order(2)
  void whatIsLeftIsCountedPerStation() {
    SmallEstate.read(lead);
    lead.file("/api/v1/inventory/readings", "more.csv", "instance,database\nPG-1,extra\n");
    assertThat(left("inventory")).isEqualTo("5 with gaps, 1 to accept");
    assertThat(left("sizing")).isEqualTo("all sized");
    assertThat(left("waves")).isEqualTo("4 groups unplaced");
    assertThat(
            where(lead.get("/api/v1/overview/today").body(), "station", "inventory")
                .path("title")
                .asString())
        .isEqualTo("Readings to accept: 1");
    SmallEstate.accept(lead, "other.csv", "instance,database,environment\nPG-1,orders,test\n");
    SmallEstate.accept(
        lead, "third.csv", "instance,database,environment\nPG-1,orders,production\n");
    assertThat(left("inventory")).contains("1 disagree");
  }

  @Test
  @Order(3)
  void aWaveThatWillNotHoldWantsAttentionFirst() throws InterruptedException {
    beforePlanning = lead.get("/api/v1/journal").body().get(0).path("at").asString();
    Thread.sleep(20);
    ok(place(lead, "PG-1/orders", null, "W04"));
    ok(place(lead, "MY-1/crew", null, "W03"));
    JsonNode first = lead.get("/api/v1/overview/today").body().get(0);
    assertThat(first.path("title").asString()).isEqualTo("W04 will not hold");
    assertThat(first.path("tone").asString()).isEqualTo("ACT");
    assertThat(first.path("words").asString()).contains("Stocktaking");
    ok(place(lead, "PG-1/orders", "W04", "W03"));
    assertThat(lead.get("/api/v1/overview/today").body().toString())
        .doesNotContain("will not hold");
  }

  @Test
  @Order(4)
  void stalledAndHeldAreNamedWithTheirReason() {
    Client engineer = server.as(Role.ENGINEER);
    ok(
        engineer.put(
            "/api/v1/crossings/places", Map.of("database", "MY-1/crew", "place", "PREPARED")));
    ok(engineer.post("/api/v1/crossings", Map.of("database", "MY-1/crew", "owner", "engineer")));
    ok(
        engineer.post(
            "/api/v1/crossings/X-0001/moves",
            Map.of("move", "STALL", "reason", "no route to the target"),
            1));
    JsonNode first = lead.get("/api/v1/overview/today").body().get(0);
    assertThat(first.path("title").asString()).isEqualTo("Stalled: MY-1/crew");
    assertThat(first.path("words").asString())
        .isEqualTo("setting up, no route to the target; with engineer");
    assertThat(left("crossings")).isEqualTo("1 stalled, 1 under way");
    assertThat(
            where(lead.get("/api/v1/overview/left").body(), "station", "crossings")
                .path("tone")
                .asString())
        .isEqualTo("ACT");
  }

  @Test
  @Order(5)
  void thePictureIsToldAgainAsItWas() {
    JsonNode now = lead.get("/api/v1/overview/picture").body();
    assertThat(mark(now, "MY-1/crew").path("condition").asString()).isEqualTo("STALLED");
    assertThat(mark(now, "PG-1/orders").path("wave").asString()).isEqualTo("W03");
    assertThat(mark(now, "PG-1/scratch").path("place").asString()).isEqualTo("OUT_OF_SCOPE");
    JsonNode then = lead.get("/api/v1/overview/picture?at=" + beforePlanning).body();
    assertThat(then.path("now").asBoolean()).isFalse();
    assertThat(mark(then, "MY-1/crew").path("place").asString()).isEqualTo("UNPLANNED");
    assertThat(mark(then, "PG-1/orders").has("wave")).isFalse();
    assertThat(lead.get("/api/v1/overview/picture?at=yesterday").status()).isEqualTo(400);
  }
}
