package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** People, sign-in and the programme's settings. */
class TeamTest {
  private static TestServer server;
  private static Client lead;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static Answer add(String login, String name, String password) {
    return lead.post(
        "/api/v1/team/people",
        Map.of("login", login, "name", name, "role", "OWNER", "password", password));
  }

  @Test
  void aPersonIsAddedOnceAndSignsInWithTheirPassword() {
    assertThat(add("noor", "Noor", TestServer.PASSWORD).status()).isEqualTo(200);
    assertThat(add("noor", "Another", "long enough").detail()).contains("\"noor\" is taken");
    Client noor = server.signedIn("noor");
    assertThat(noor.get("/api/v1/team/me").body().path("role").asString()).isEqualTo("OWNER");
    assertThat(lead.get("/api/v1/team/people").body().toString())
        .contains("Noor")
        .doesNotContain("assword", "$2a");
    assertThat(lead.get("/api/v1/journal?kind=PERSON&key=noor").body().get(0).toString())
        .contains("\"person\":\"lead\"", "\"toValue\":\"OWNER\"")
        .doesNotContain(TestServer.PASSWORD);
  }

  @Test
  void badLoginsNamesAndPasswordsAreExplained() {
    assertThat(add("No Or", "N", "long enough").detail()).contains("is no login");
    assertThat(add("ok", " ", "long enough").status()).isEqualTo(422);
    assertThat(add("ok", "N", "short").detail()).contains("8 to 72 characters");
    assertThat(add("ok", "N", "é".repeat(40)).detail()).contains("8 to 72 characters");
  }

  @Test
  void signingOutEndsTheSession() {
    add("temp", "Temp", TestServer.PASSWORD);
    Client temp = server.signedIn("temp");
    assertThat(temp.get("/api/v1/programme").status()).isEqualTo(200);
    temp.post("/auth/sign-out", Map.of());
    assertThat(temp.get("/api/v1/programme").status()).isEqualTo(401);
  }

  @Test
  void aWrongPasswordSaysNoMoreThanAnUnknownLogin() {
    Client stranger = server.anybody();
    Answer unknown =
        stranger.post("/auth/sign-in", Map.of("login", "ghost", "password", "whatever it is"));
    Answer wrong =
        stranger.post("/auth/sign-in", Map.of("login", "lead", "password", "whatever it is"));
    assertThat(unknown.status()).isEqualTo(401);
    assertThat(wrong.detail()).isEqualTo(unknown.detail()).isNotEmpty();
  }

  @Test
  void keptSizingSettingsCarryAVersionAndAreBounded() {
    JsonNode programme = lead.get("/api/v1/programme").body();
    Map<String, Object> settings = new HashMap<>();
    programme.path("sizing").properties().forEach(e -> settings.put(e.getKey(), e.getValue()));
    settings.put("percentile", 99);
    int version = programme.path("version").asInt();
    assertThat(lead.put("/api/v1/programme/sizing", settings, version).status()).isEqualTo(200);
    Answer second = lead.put("/api/v1/programme/sizing", settings, version);
    assertThat(second.status()).isEqualTo(412);
    assertThat(second.body().path("theirs").asString()).contains("P99");
    settings.put("percentile", 120);
    assertThat(lead.put("/api/v1/programme/sizing", settings, version + 1).detail())
        .isEqualTo("The percentile (120.0) must be 50 to 100.");
    assertThat(lead.put("/api/v1/programme/sizing", settings).status()).isEqualTo(400);
  }
}
