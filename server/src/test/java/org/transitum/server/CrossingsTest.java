package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.server.SmallEstate.ok;
import static org.transitum.server.SmallEstate.where;

import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import org.transitum.server.team.TeamService;
import tools.jackson.databind.JsonNode;

/** The moves that a person may and may not make; each test crosses a database of its own. */
class CrossingsTest {
  private static TestServer server;
  private static Client lead;
  private static Client engineer;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    engineer = server.as(Role.ENGINEER);
    SmallEstate.read(lead);
    for (String group : new String[] {"PG-1/orders", "PG-1/stock", "MY-1/crew", "MY-1/maps"}) {
      ok(SmallEstate.place(lead, group, null, "W03"));
    }
    server.bean(TeamService.class).add("other", "Other", Role.ENGINEER, TestServer.PASSWORD);
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static Answer become(String database, String place) {
    return engineer.put("/api/v1/crossings/places", Map.of("database", database, "place", place));
  }

  private static String setUp(String database, String owner) {
    JsonNode place = where(lead.get("/api/v1/crossings/places").body(), "database", database);
    if (!place.path("place").asString().equals("PREPARED")) {
      ok(become(database, "PREPARED"));
    }
    return ok(lead.post("/api/v1/crossings", Map.of("database", database, "owner", owner)))
        .body()
        .path("key")
        .asString();
  }

  private static Answer move(Client who, String key, String move, String reason) {
    long version = who.get("/api/v1/crossings/" + key).body().path("version").asLong();
    return who.post(
        "/api/v1/crossings/" + key + "/moves",
        reason == null ? Map.of("move", move) : Map.of("move", move, "reason", reason),
        version);
  }

  private static Answer report(String key, Map<String, ?> report) {
    long version = engineer.get("/api/v1/crossings/" + key).body().path("version").asLong();
    return engineer.post("/api/v1/crossings/" + key + "/reports", report, version);
  }

  private static String place(String database) {
    return where(lead.get("/api/v1/crossings/places").body(), "database", database)
        .path("place")
        .asString();
  }

  private static String following(String database) {
    String key = setUp(database, "engineer");
    ok(move(engineer, key, "COPY", null));
    ok(report(key, Map.of("progress", 1.0)));
    ok(move(engineer, key, "FOLLOW", null));
    return key;
  }

  @Test
  void stalledNeedsAReasonKeepsItsStageAndIsTriedAgain() {
    String key = setUp("PG-1/orders", "engineer");
    ok(move(engineer, key, "COPY", null));
    assertThat(move(engineer, key, "STALL", null).detail()).contains("give the reason");
    JsonNode stalled = ok(move(engineer, key, "STALL", "disk full")).body();
    assertThat(stalled.path("stage").asString()).isEqualTo("COPYING");
    assertThat(stalled.path("reason").asString()).isEqualTo("disk full");
    assertThat(move(engineer, key, "FOLLOW", null).detail())
        .contains("is copying, stalled and cannot follow", "it can retry, stop");
    assertThat(ok(move(engineer, key, "RETRY", null)).body().has("reason")).isFalse();
    ok(move(engineer, key, "STOP", "the target is the wrong one"));
    assertThat(place("PG-1/orders")).as("a stopped crossing frees it").isEqualTo("PREPARED");
    assertThat(report(key, Map.of("progress", 0.4)).detail()).isEqualTo(key + " has ended.");
    assertThat(setUp("PG-1/orders", "engineer")).isNotEqualTo(key);
  }

  @Test
  void heldKeepsFollowingAndGoesOnOrSwitches() {
    String key = following("PG-1/stock");
    assertThat(report(key, Map.of("progress", 0.5)).detail()).contains("copies nothing");
    ok(move(engineer, key, "HOLD", "owner tests"));
    ok(report(key, Map.of("lagSeconds", 30)));
    assertThat(move(engineer, key, "SWITCH", null).detail()).contains("still 30 s behind");
    ok(move(engineer, key, "GO_ON", null));
    ok(report(key, Map.of("lagSeconds", 0)));
    ok(move(engineer, key, "SWITCH", null));
    assertThat(move(engineer, key, "STOP", "too late").detail()).contains("cannot stop");
    ok(move(engineer, key, "REVERT", "the application fails its test"));
    assertThat(place("PG-1/stock")).isEqualTo("PREPARED");
  }

  @Test
  void anEngineerLeavesTheCrossingsOfOthersAloneAndTheLeadDoesNot() {
    String key = setUp("MY-1/crew", "other");
    Answer refused = move(engineer, key, "COPY", null);
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.detail()).contains("assigned to other", "Ask them or the lead");
    ok(move(lead, key, "COPY", null));
    assertThat(ok(move(server.signedIn("other"), key, "STALL", "network")).status()).isEqualTo(200);
    long version = lead.get("/api/v1/crossings/" + key).body().path("version").asLong();
    assertThat(
            lead.put("/api/v1/crossings/" + key + "/owner", Map.of("owner", "nobody"), version)
                .detail())
        .contains("nobody of this programme");
  }

  @Test
  void aDatabaseLandsSettlesAndRetiresInThatOrder() {
    assertThat(become("MY-1/maps", "SETTLED").detail()).contains("only a landed database");
    String key = following("MY-1/maps");
    assertThat(engineer.post("/api/v1/crossings", Map.of("database", "MY-1/maps")).detail())
        .contains("only a prepared database can cross");
    ok(report(key, Map.of("lagSeconds", 0)));
    ok(move(engineer, key, "SWITCH", null));
    ok(move(engineer, key, "PROVE", null));
    ok(move(engineer, key, "FINISH", null));
    assertThat(place("MY-1/maps")).isEqualTo("LANDED");
    assertThat(become("MY-1/maps", "RETIRED").detail()).contains("only the source of a settled");
    ok(become("MY-1/maps", "SETTLED"));
    ok(become("MY-1/maps", "RETIRED"));
    assertThat(place("MY-1/maps")).isEqualTo("RETIRED");
    assertThat(become("MY-1/maps", "PLANNED").detail()).contains("not by hand");
  }

  @Test
  void keysThatAreNoneAreSaidSo() {
    assertThat(lead.get("/api/v1/crossings/X-9999").detail()).contains("no crossing X-9999");
    assertThat(lead.get("/api/v1/crossings/17").detail()).contains("named X-0001");
    assertThat(place("PG-1/scratch")).isEqualTo("OUT_OF_SCOPE");
  }
}
