package org.transitum.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import tools.jackson.databind.json.JsonMapper;

/**
 * The committed description, from which the front end's types are made, is what the server says.
 */
class ApiDescriptionTest {

  @Test
  void theCommittedDescriptionIsCurrent() throws Exception {
    Path committed = Path.of("../docs/openapi.json");
    try (TestServer server = TestServer.start()) {
      String served = server.as(Role.LEAD).get("/api/v1/openapi").response().body();
      if (Boolean.getBoolean("refresh")) {
        Files.writeString(committed, served.strip() + "\n");
      }
      JsonMapper json = JsonMapper.builder().build();
      assertThat(json.readTree(Files.readString(committed)))
          .as("run mvn -pl server -Dtest=ApiDescriptionTest -Drefresh=true test to refresh it")
          .isEqualTo(json.readTree(served));
    }
  }
}
