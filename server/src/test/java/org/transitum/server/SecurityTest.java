package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Answer;
import tools.jackson.databind.JsonNode;

/** Who may call what, and what a stranger learns. */
class SecurityTest {
  private static TestServer server;

  @BeforeAll
  static void start() {
    server = TestServer.start();
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private record Operation(String method, String path, List<String> allowed) {
    String url() {
      String filled =
          path.replace("{id}", "1")
              .replace("{name}", "none")
              .replace("{instance}", "X")
              .replace("{key}", "X-0001");
      return switch (path) {
        case "/api/v1/inventory/object" -> filled + "?kind=DATABASE&key=A/b";
        case "/api/v1/inventory/object/fact" -> filled + "?kind=DATABASE&key=A/b&attribute=owner";
        case "/api/v1/inventory/table" -> filled + "?kind=HOST";
        case "/api/v1/inventory/questions/file" -> filled + "?owner=Ann";
        case "/api/v1/sizing/database" -> filled + "?key=A/b";
        case "/api/v1/counters/coverage" -> filled + "?key=A/b";
        case "/api/v1/waves/preview" -> filled + "?group=A/b";
        default -> filled + "?name=x.csv";
      };
    }
  }

  /** Every operation that the running server describes under /api/v1. */
  private static List<Operation> operations() {
    List<Operation> operations = new ArrayList<>();
    JsonNode paths = server.as(Role.LEAD).get("/api/v1/openapi").body().path("paths");
    paths
        .properties()
        .forEach(
            path ->
                path.getValue()
                    .properties()
                    .forEach(
                        operation -> {
                          List<String> allowed = new ArrayList<>();
                          operation
                              .getValue()
                              .path("x-allowed")
                              .forEach(role -> allowed.add(role.asString()));
                          if (path.getKey().startsWith("/api/v1/")) {
                            operations.add(
                                new Operation(
                                    operation.getKey().toUpperCase(Locale.ROOT),
                                    path.getKey(),
                                    allowed));
                          }
                        }));
    return operations;
  }

  @Test
  void everyEndpointAnswersEachRoleAsItSays() {
    List<Operation> operations = operations();
    assertThat(operations).hasSizeGreaterThan(35);
    for (Operation operation : operations) {
      assertThat(operation.allowed()).as(operation.toString()).isNotEmpty();
      if (operation.path().equals("/api/v1/live")) {
        continue;
      }
      for (Role role : Role.values()) {
        int status =
            server.as(role).send(operation.method(), operation.url(), body(operation), 1L).status();
        boolean allowed = operation.allowed().contains(role.name().toLowerCase(Locale.ROOT));
        assertThat(status == 403)
            .as("%s as %s gives %d", operation, role, status)
            .isEqualTo(!allowed);
        assertThat(status).as(operation + " as " + role).isNotEqualTo(500);
      }
    }
  }

  private static Object body(Operation operation) {
    return operation.method().equals("GET") || operation.method().equals("DELETE")
        ? null
        : Map.of();
  }

  @Test
  void nothingUnderApiAnswersAStranger() {
    for (Operation operation : operations()) {
      Answer answer =
          server.anybody().send(operation.method(), operation.url(), body(operation), 1L);
      assertThat(answer.status()).as(operation.toString()).isEqualTo(401);
    }
    assertThat(server.anybody().get("/actuator/health").status()).isEqualTo(200);
    assertThat(server.anybody().get("/actuator/env").status()).isNotEqualTo(200);
  }

  @Test
  void ownersAndObserversChangeNothing() {
    for (Operation operation : operations()) {
      boolean own = operation.path().startsWith("/api/v1/inventory/views");
      if (!operation.method().equals("GET") && !own) {
        assertThat(operation.allowed())
            .as(operation.toString())
            .doesNotContain("observer", "owner");
      }
    }
  }

  @Test
  void aChangeWithoutTheProtectionTokenIsRefused() throws Exception {
    var request =
        java.net.http.HttpRequest.newBuilder(
                java.net.URI.create("http://127.0.0.1:" + server.port() + "/api/v1/waves/plans"))
            .POST(java.net.http.HttpRequest.BodyPublishers.noBody())
            .build();
    var answer =
        server
            .as(Role.LEAD)
            .http()
            .send(request, java.net.http.HttpResponse.BodyHandlers.ofString());
    assertThat(answer.statusCode()).isEqualTo(403);
  }

  @Test
  void pagesCarryAPolicyThatNeedsNoInlineScript() {
    var headers = server.anybody().get("/auth/door").response().headers();
    String policy = headers.firstValue("Content-Security-Policy").orElse("");
    assertThat(policy)
        .contains("script-src 'self';", "frame-ancestors 'none'", "object-src 'none'");
    assertThat(headers.firstValue("X-Content-Type-Options")).contains("nosniff");
  }

  @Test
  void guessingPasswordsIsStopped() {
    var stranger = server.anybody();
    int last = 0;
    for (int i = 0; i < 12; i++) {
      last =
          stranger
              .post("/auth/sign-in", Map.of("login", "nobody", "password", "guess" + i))
              .status();
    }
    assertThat(last).isEqualTo(429);
  }

  @Test
  void setUpWorksOnceAndMakesALead() {
    try (TestServer fresh = TestServer.start()) {
      assertThat(fresh.anybody().get("/auth/door").body().path("setUpNeeded").asBoolean()).isTrue();
      Map<String, String> setUp =
          Map.of(
              "programme",
              "Leave the old hall",
              "zone",
              "Europe/London",
              "login",
              "ada",
              "name",
              "Ada",
              "password",
              "open sesame");
      assertThat(fresh.anybody().post("/auth/set-up", setUp).body().path("role").asString())
          .isEqualTo("LEAD");
      assertThat(fresh.anybody().post("/auth/set-up", setUp).status()).isEqualTo(409);
    }
  }

  @Test
  void aStoredPasswordIsEncryptedAndNeverComesBack() throws Exception {
    var lead = server.as(Role.LEAD);
    Answer listed =
        lead.put(
            "/api/v1/inventory/servers",
            Map.of(
                "instance",
                "SEC-1",
                "engine",
                "POSTGRESQL",
                "host",
                "db.example",
                "port",
                5432,
                "database",
                "postgres",
                "user",
                "reader",
                "password",
                "very-secret-word",
                "tls",
                "REQUIRE"));
    assertThat(listed.status()).isEqualTo(200);
    assertThat(lead.get("/api/v1/inventory/servers").response().body())
        .contains("SEC-1")
        .doesNotContain("very-secret-word");
    byte[] file = java.nio.file.Files.readAllBytes(server.data().resolve("transitum.mv.db"));
    assertThat(new String(file, java.nio.charset.StandardCharsets.ISO_8859_1))
        .doesNotContain("very-secret-word");
  }
}
