package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer.Client;

/** Others' changes arrive, and a lost connection misses none. */
class LiveTest {

  private record Event(String id, String data) {}

  private static List<Event> events(TestServer server, Client client, String lastId, int count)
      throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + "/api/v1/live"));
    if (lastId != null) {
      request.header("Last-Event-ID", lastId);
    }
    try (InputStream in =
        client.http().send(request.build(), BodyHandlers.ofInputStream()).body()) {
      return read(in, count);
    }
  }

  private static List<Event> read(InputStream in, int count) throws IOException {
    List<Event> events = new ArrayList<>();
    BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8));
    String id = "";
    for (String line = lines.readLine(); line != null; line = lines.readLine()) {
      if (line.startsWith("id:")) {
        id = line.substring(3);
      } else if (line.startsWith("data:")) {
        events.add(new Event(id, line.substring(5)));
        if (events.size() == count) {
          return events;
        }
      }
    }
    return events;
  }

  @Test
  @Timeout(90)
  void whatWasMissedArrivesAfterReconnectingAndARestartAsksToReadAgain() throws Exception {
    String lastId;
    java.nio.file.Path data;
    try (TestServer server = TestServer.start()) {
      data = server.data();
      Client lead = server.as(Role.LEAD);
      lastId = events(server, lead, null, 1).get(0).id();
      lead.file("/api/v1/inventory/readings", "a.csv", "application,owner\nBilling,Ann\n");
      lead.post("/api/v1/inventory/readings/1/accept", Map.of());
      List<Event> missed = events(server, lead, lastId, 3);
      assertThat(missed)
          .extracting(Event::data)
          .anyMatch(change -> change.contains("\"inventory\""));
    }
    try (TestServer again = TestServer.at(data)) {
      List<Event> told = events(again, again.as(Role.LEAD), lastId, 1);
      assertThat(told.get(0).data()).contains("everything");
    }
  }
}
