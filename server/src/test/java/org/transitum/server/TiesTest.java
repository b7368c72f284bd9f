package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.server.SmallEstate.ok;
import static org.transitum.server.SmallEstate.tie;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import org.transitum.server.inventory.ReadingService;
import org.transitum.sources.inventory.ServerReading;
import org.transitum.sources.inventory.ServerReading.SeenTie;
import tools.jackson.databind.JsonNode;

/** Ties that are seen, stated, read and decided. */
class TiesTest {
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

  private JsonNode ties() {
    return lead.get("/api/v1/dependencies").body().path("ties");
  }

  private Answer decide(long id, String kind, String state, long version) {
    return lead.put(
        "/api/v1/dependencies/ties/" + id,
        Map.of("kind", kind, "weight", 1, "state", state),
        version);
  }

  /** A server's reading that saw a pointer from orders to a database at an address. */
  private void seen(String host, int port, String database) {
    SmallEstate.accept(lead, "ports.csv", "instance,host,port\nPG-1,h1,5432\nMY-1,h2,3306\n");
    Reading reading =
        new Reading(
            "server PG-1",
            Origin.OBSERVED,
            java.time.Instant.parse("2026-11-24T12:00:00Z"),
            List.of(
                new ReadObject(
                    ObjectKind.DATABASE, "PG-1/orders", "pg", Map.of(Attribute.TABLES, "4"))),
            List.of("part of it"));
    SeenTie tie = new SeenTie("PG-1/orders", host, port, database, "foreign table");
    ReadingService readings = server.bean(ReadingService.class);
    org.springframework.security.core.context.SecurityContextHolder.getContext()
        .setAuthentication(
            org.springframework.security.authentication.UsernamePasswordAuthenticationToken
                .authenticated("lead", null, List.of()));
    long id = readings.open(new ServerReading(reading, List.of(tie))).id();
    ok(lead.post("/api/v1/inventory/readings/" + id + "/accept", Map.of()));
  }

  @Test
  void aTieThatIsSeenWaitsUntilSomebodyConfirmsIt() {
    seen("H2", 3306, "crew");
    JsonNode tie = ties().get(0);
    assertThat(tie.path("state").asString()).isEqualTo("PROPOSED");
    assertThat(tie.path("to").asString()).isEqualTo("MY-1/crew");
    assertThat(tie.path("evidence").get(0).path("words").asString()).isEqualTo("foreign table");
    assertThat(lead.get("/api/v1/waves").body().path("groups")).as("it groups nothing").hasSize(4);
    long id = tie.path("id").asLong();
    assertThat(decide(id, "BOUND", "CONFIRMED", 9).status()).isEqualTo(412);
    ok(decide(id, "BOUND", "CONFIRMED", tie.path("version").asLong()));
    assertThat(lead.get("/api/v1/waves").body().path("groups")).hasSize(3);
    assertThat(decide(id, "LOOSE", "REJECTED", 1).body().path("theirs").asString())
        .isEqualTo("bound, confirmed");
  }

  @Test
  void whatPointsOutsideTheEstateIsNoTie() {
    seen("elsewhere.example", 3306, "crew");
    assertThat(ties()).isEmpty();
  }

  @Test
  void aRejectedTieStaysRejectedWhenItIsSeenAgain() {
    seen("h2", 3306, "crew");
    ok(decide(ties().get(0).path("id").asLong(), "BOUND", "REJECTED", 1));
    seen("h2", 3306, "crew");
    assertThat(ties()).hasSize(1);
    assertThat(ties().get(0).path("state").asString()).isEqualTo("REJECTED");
  }

  @Test
  void aFileOfTiesIsTakenWholeOrNotAtAll() {
    Answer bad =
        lead.file(
            "/api/v1/dependencies/imports",
            "t.csv",
            "from,to,kind,weight\nPG-1/orders,PG-1/stock,bound,1\nPG-1/orders,PG-9/x,loose,2\nMY-1/crew,MY-1/maps,near,3\n");
    assertThat(bad.status()).isEqualTo(422);
    assertThat(bad.body().path("problems")).hasSize(2);
    assertThat(ties()).isEmpty();
    Answer good =
        lead.file(
            "/api/v1/dependencies/imports",
            "t.csv",
            "from,to,kind,weight,evidence\nPG-1/orders,PG-1/stock,bound,1,nightly join\nMY-1/crew,MY-1/maps,loose,3,\n");
    assertThat(good.body().path("changed").asInt()).isEqualTo(2);
    assertThat(
            lead.file(
                    "/api/v1/dependencies/imports",
                    "t.csv",
                    "from,to,kind,weight,evidence\nPG-1/orders,PG-1/stock,bound,1,nightly join\n")
                .body()
                .path("changed")
                .asInt())
        .as("the same again changes nothing")
        .isZero();
  }

  @Test
  void aTieIsBetweenTwoDatabasesThatAreThere() {
    Answer self =
        lead.post(
            "/api/v1/dependencies/ties",
            Map.of(
                "from",
                "PG-1/orders",
                "to",
                "PG-1/orders",
                "kind",
                "BOUND",
                "weight",
                1,
                "words",
                ""));
    assertThat(self.detail()).contains("two different databases");
    tie(lead, "PG-1/orders", "PG-1/stock", "LOOSE");
    assertThat(lead.get("/api/v1/journal?kind=TIE").body().get(0).path("objectKey").asString())
        .isEqualTo("PG-1/orders to PG-1/stock");
    assertThat(decide(99, "BOUND", "CONFIRMED", 1).status()).isEqualTo(404);
  }
}
