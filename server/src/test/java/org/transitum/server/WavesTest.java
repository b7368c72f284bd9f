package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.server.SmallEstate.ok;
import static org.transitum.server.SmallEstate.place;
import static org.transitum.server.SmallEstate.tie;
import static org.transitum.server.SmallEstate.where;

import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** What planning by hand and by the planner refuses, says and keeps. */
class WavesTest {
  private TestServer server;
  private Client lead;

  @BeforeEach
  void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
    SmallEstate.read(lead);
  }

  @AfterEach
  void stop() {
    server.close();
  }

  private JsonNode group(String key) {
    return where(lead.get("/api/v1/waves").body().path("groups"), "key", key);
  }

  private Answer plan() {
    return ok(lead.post("/api/v1/waves/plans", Map.of()));
  }

  @Test
  void aWaveThatHasBegunTakesNothingAndAFrozenOneSaysWhyNot() {
    assertThat(place(lead, "PG-1/orders", null, "W01").detail())
        .isEqualTo("W01 has begun; nothing can be placed in it.");
    assertThat(place(lead, "PG-1/orders", null, "W09").status()).isEqualTo(404);
    assertThat(place(lead, "PG-9/none", null, "W02").detail()).contains("no move group");
    Answer frozen = ok(place(lead, "PG-1/orders", null, "W04"));
    assertThat(where(frozen.body().path("waves"), "key", "W04").path("breaches").toString())
        .contains("lies in the freeze", "Stocktaking");
  }

  @Test
  void thePlannerLeavesLockedGroupsAndFrozenWavesAlone() {
    ok(place(lead, "MY-1/crew", null, "W03"));
    ok(lead.put("/api/v1/waves/locks", Map.of("group", "MY-1/crew", "locked", true)));
    JsonNode draft = plan().body();
    assertThat(draft.path("moves").toString()).doesNotContain("MY-1/crew", "W04", "W01");
    assertThat(draft.path("moves")).hasSize(3);
    ok(lead.post("/api/v1/waves/plans/" + draft.path("id").asLong() + "/accept", Map.of()));
    assertThat(group("MY-1/crew").path("wave").asString()).isEqualTo("W03");
    assertThat(group("MY-1/crew").path("locked").asBoolean()).isTrue();
    assertThat(lead.get("/api/v1/waves").body().path("unplaced").asInt()).isZero();
    assertThat(plan().body().path("moves")).as("a second plan has nothing to improve").isEmpty();
  }

  @Test
  void aGroupWithoutAWaveCannotBeLocked() {
    assertThat(
            lead.put("/api/v1/waves/locks", Map.of("group", "MY-1/crew", "locked", true)).detail())
        .contains("has no wave to be locked to");
  }

  @Test
  void aPlanThatIsOvertakenIsRefusedAndNothingOfItMoves() {
    JsonNode draft = plan().body();
    String first = draft.path("moves").get(0).path("group").asString();
    ok(place(lead, first, null, "W03"));
    Answer late =
        lead.post("/api/v1/waves/plans/" + draft.path("id").asLong() + "/accept", Map.of());
    assertThat(late.status()).isEqualTo(409);
    assertThat(late.detail()).contains(first, "has changed since plan", "plan again");
    assertThat(lead.get("/api/v1/waves").body().path("unplaced").asInt()).isEqualTo(3);
    assertThat(lead.get("/api/v1/waves/plans/draft").body().path("draft").path("id").asLong())
        .as("the refused plan is still a draft")
        .isEqualTo(draft.path("id").asLong());
  }

  @Test
  void aDraftIsDiscardedOnceAndNotAcceptedAfterwards() {
    long id = plan().body().path("id").asLong();
    ok(lead.delete("/api/v1/waves/plans/" + id));
    assertThat(lead.delete("/api/v1/waves/plans/" + id).status()).isEqualTo(409);
    assertThat(lead.post("/api/v1/waves/plans/" + id + "/accept", Map.of()).detail())
        .contains("closed already");
    assertThat(lead.get("/api/v1/waves/plans/draft").body().has("draft")).isFalse();
  }

  @Test
  void aBoundTieOverTwoWavesIsSaidAndMovingTheGroupMendsIt() {
    ok(place(lead, "PG-1/orders", null, "W02"));
    ok(place(lead, "PG-1/stock", null, "W03"));
    tie(lead, "PG-1/orders", "PG-1/stock", "BOUND");
    assertThat(group("PG-1/orders").path("problem").asString())
        .isEqualTo("Must cross together, but stands in W02 and W03");
    ok(place(lead, "PG-1/orders", null, "W03"));
    assertThat(group("PG-1/orders").path("wave").asString()).isEqualTo("W03");
    assertThat(group("PG-1/orders").has("problem")).isFalse();
  }

  @Test
  void anOrderedTieIsPreviewedBeforeItBreaks() {
    tie(lead, "MY-1/crew", "MY-1/maps", "ORDERED");
    ok(place(lead, "MY-1/crew", null, "W03"));
    JsonNode previews = lead.get("/api/v1/waves/preview?group=MY-1/maps").body();
    assertThat(where(previews, "wave", "W02").path("breaks").toString())
        .contains("MY-1/maps in W02 would cross before MY-1/crew in W03");
    assertThat(where(previews, "wave", "W03").path("breaks")).isEmpty();
    assertThat(where(previews, "wave", "W01").path("open").asBoolean()).isFalse();
    assertThat(lead.get("/api/v1/waves").body().path("cutTies").asInt()).isZero();
  }

  @Test
  void aLooseTieCostsWhileItIsCut() {
    tie(lead, "MY-1/crew", "MY-1/maps", "LOOSE");
    ok(place(lead, "MY-1/crew", null, "W02"));
    JsonNode previews = lead.get("/api/v1/waves/preview?group=MY-1/maps").body();
    JsonNode together = where(previews, "wave", "W02");
    JsonNode apart = where(previews, "wave", "W03");
    assertThat(together.path("cutTies").asInt()).isZero();
    assertThat(apart.path("cutTies").asInt()).isEqualTo(1);
    assertThat(apart.path("costDelta").asDouble() - together.path("costDelta").asDouble())
        .as("2 a day for 7 days, less the lower risk of the later wave")
        .isBetween(7.0, 14.1);
  }

  @Test
  void aWindowFileChangesWavesInPlaceAndABadOneChangesNothing() {
    String moved = SmallEstate.WINDOWS.replace("W02,First,2099-01-02", "W02,First,2099-01-01");
    Answer bad =
        lead.file("/api/v1/waves/imports", "windows.csv", moved + "window,W05,Late,soon,,1,1\n");
    assertThat(bad.body().path("problems").toString()).contains("\"row\":7", "starts_at");
    assertThat(bad.status()).isEqualTo(422);
    assertThat(where(lead.get("/api/v1/waves").body().path("waves"), "key", "W02").toString())
        .contains("2099-01-02T20:00:00Z");
    ok(lead.file("/api/v1/waves/imports", "windows.csv", moved));
    assertThat(where(lead.get("/api/v1/waves").body().path("waves"), "key", "W02").toString())
        .contains("2099-01-01T20:00:00Z");
    assertThat(lead.get("/api/v1/waves").body().path("freezes")).hasSize(1);
  }

  @Test
  void whatRetiresIsNotPlanned() {
    assertThat(lead.get("/api/v1/waves").body().path("groups").toString())
        .doesNotContain("PG-1/scratch");
  }
}
