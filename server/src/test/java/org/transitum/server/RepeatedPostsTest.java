package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Client;

/** A post that is sent again, because its answer was lost, does nothing twice. */
class RepeatedPostsTest {
  private static TestServer server;

  @BeforeAll
  static void start() {
    server = TestServer.start();
    SmallEstate.read(server.as(Role.LEAD));
  }

  @AfterAll
  static void stop() {
    server.close();
  }

  private static HttpResponse<String> post(Client who, String path, String body, String key)
      throws IOException, InterruptedException {
    HttpRequest request =
        who.protectedRequest(URI.create("http://127.0.0.1:" + server.port() + path))
            .header("Content-Type", "application/json")
            .header("Idempotency-Key", key)
            .POST(BodyPublishers.ofString(body))
            .build();
    return who.http().send(request, BodyHandlers.ofString());
  }

  private static int plans() {
    return server.as(Role.LEAD).get("/api/v1/journal?kind=PLAN").body().size();
  }

  @Test
  void theSameKeyGivesTheFirstAnswerAgain() throws Exception {
    int before = plans();
    HttpResponse<String> first = post(server.as(Role.LEAD), "/api/v1/waves/plans", "{}", "one");
    HttpResponse<String> again = post(server.as(Role.LEAD), "/api/v1/waves/plans", "{}", "one");
    assertThat(again.statusCode()).isEqualTo(200);
    assertThat(again.body()).isEqualTo(first.body()).contains("\"moves\"");
    assertThat(again.headers().firstValue("Content-Type")).contains("application/json");
    assertThat(plans()).isEqualTo(before + 1);
    post(server.as(Role.LEAD), "/api/v1/waves/plans", "{}", "two");
    assertThat(plans()).isEqualTo(before + 2);
  }

  @Test
  void aRefusalIsRepeatedAsItWasAndTheKeyIsNobodyElses() throws Exception {
    String bad =
        "{\"login\":\"X\",\"name\":\"X\",\"role\":\"ENGINEER\",\"password\":\"long enough\"}";
    HttpResponse<String> first = post(server.as(Role.LEAD), "/api/v1/team/people", bad, "same");
    String good = bad.replace("\"X\",\"name\"", "\"xena\",\"name\"");
    HttpResponse<String> again = post(server.as(Role.LEAD), "/api/v1/team/people", good, "same");
    assertThat(first.statusCode()).isEqualTo(422);
    assertThat(again.body()).isEqualTo(first.body());
    assertThat(post(server.as(Role.ENGINEER), "/api/v1/team/people", good, "same").statusCode())
        .isEqualTo(403);
    assertThat(post(server.as(Role.LEAD), "/api/v1/team/people", good, "other").statusCode())
        .isEqualTo(200);
  }

  @Test
  void aKeyWithoutEndIsRefused() throws Exception {
    HttpResponse<String> answer =
        post(server.as(Role.LEAD), "/api/v1/waves/plans", "{}", "k".repeat(101));
    assertThat(answer.statusCode()).isEqualTo(400);
    assertThat(answer.body()).contains("1 to 100 characters");
  }
}
