package org.transitum.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.transitum.core.team.Role;
import org.transitum.server.team.TeamService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The real server on a free port with a real H2 file, and people who speak HTTP to it. */
public final class TestServer implements AutoCloseable {
  private static final JsonMapper JSON = JsonMapper.builder().build();
  static final String PASSWORD = "open sesame";

  private final Path data;
  private final ConfigurableApplicationContext context;
  private final Map<Role, Client> clients = new HashMap<>();

  private TestServer(Path data, boolean demo, String... settings) {
    this.data = data;
    List<String> arguments = new ArrayList<>(List.of(settings));
    arguments.add("--server.port=0");
    arguments.add("--transitum.data=" + data);
    arguments.add("--transitum.demo=" + demo);
    context = SpringApplication.run(TransitumServer.class, arguments.toArray(String[]::new));
  }

  /**
   * On an empty folder.
   *
   * @param settings as on the command line, such as {@code --transitum.least-free-mib=5}
   */
  public static TestServer start(String... settings) {
    return new TestServer(folder(), false, settings);
  }

  /** With the demo estate loaded. */
  public static TestServer demo() {
    return new TestServer(folder(), true);
  }

  /** On records that another server left. */
  public static TestServer at(Path data) {
    return new TestServer(data.toAbsolutePath(), false);
  }

  private static Path folder() {
    try {
      Files.createDirectories(Path.of("target"));
      return Files.createTempDirectory(Path.of("target"), "data-").toAbsolutePath();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public Path data() {
    return data;
  }

  public <T> T bean(Class<T> type) {
    return context.getBean(type);
  }

  public int port() {
    return Integer.parseInt(context.getEnvironment().getProperty("local.server.port", "0"));
  }

  /** A person of a role, signed in; made on first use. */
  public Client as(Role role) {
    return clients.computeIfAbsent(
        role,
        r -> {
          String login = r.name().toLowerCase(java.util.Locale.ROOT);
          TeamService team = bean(TeamService.class);
          if (!team.isPerson(login)) {
            team.add(login, "A " + login, r, PASSWORD);
          }
          return signedIn(login);
        });
  }

  Client signedIn(String login) {
    Client client = anybody();
    Answer answer = client.post("/auth/sign-in", Map.of("login", login, "password", PASSWORD));
    if (answer.status() != 200) {
      throw new IllegalStateException(answer.toString());
    }
    client.get("/auth/door");
    return client;
  }

  Client anybody() {
    Client client = new Client();
    client.get("/auth/door");
    return client;
  }

  @Override
  public void close() {
    context.close();
  }

  /** What came back. */
  public record Answer(int status, JsonNode body, HttpResponse<String> response) {
    String detail() {
      return body.path("detail").asString("");
    }

    @Override
    public String toString() {
      return status + " " + body;
    }
  }

  /** A browser of one person: cookies and the protection token. */
  public final class Client {
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
        HttpClient.newBuilder()
            .cookieHandler(cookies)
            .connectTimeout(Duration.ofSeconds(5))
            .build();

    public Answer get(String path) {
      return send("GET", path, null, null);
    }

    public Answer post(String path, Object body) {
      return send("POST", path, body, null);
    }

    public Answer put(String path, Object body, long version) {
      return send("PUT", path, body, version);
    }

    public Answer post(String path, Object body, long version) {
      return send("POST", path, body, version);
    }

    public Answer put(String path, Object body) {
      return send("PUT", path, body, null);
    }

    public Answer delete(String path) {
      return send("DELETE", path, null, null);
    }

    /** Sends a file's content as the body. */
    public Answer file(String path, String name, String content) {
      return send(
          "POST", path + "?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8), content, null);
    }

    public Answer send(String method, String path, Object body, Long version) {
      HttpRequest.Builder request =
          protectedRequest(URI.create("http://127.0.0.1:" + port() + path));
      if (version != null) {
        request.header("If-Match", "\"" + version + "\"");
      }
      String text =
          body instanceof String written
              ? written
              : body == null ? "" : JSON.writeValueAsString(body);
      request.header(
          "Content-Type", body instanceof String ? "application/octet-stream" : "application/json");
      request.method(
          method, body == null ? BodyPublishers.noBody() : BodyPublishers.ofString(text));
      try {
        HttpResponse<String> response = http.send(request.build(), BodyHandlers.ofString());
        JsonNode json =
            response.body().startsWith("{") || response.body().startsWith("[")
                ? JSON.readTree(response.body())
                : JSON.createObjectNode();
        return new Answer(response.statusCode(), json, response);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      } catch (InterruptedException e) {
        throw new IllegalStateException(e);
      }
    }

    /** A request that carries the protection token. */
    HttpRequest.Builder protectedRequest(URI uri) {
      HttpRequest.Builder request = HttpRequest.newBuilder(uri).timeout(Duration.ofSeconds(60));
      token().ifPresent(token -> request.header("X-XSRF-TOKEN", token));
      return request;
    }

    HttpClient http() {
      return http;
    }

    private java.util.Optional<String> token() {
      return cookies.getCookieStore().getCookies().stream()
          .filter(cookie -> cookie.getName().equals("XSRF-TOKEN") && !cookie.getValue().isEmpty())
          .map(java.net.HttpCookie::getValue)
          .reduce((first, second) -> second);
    }

    /** Waits for a job to end. */
    Answer job(Answer started) {
      long id = started.body().path("id").asLong();
      for (int i = 0; i < 300; i++) {
        Answer answer = get("/api/v1/jobs/" + id);
        if (!answer.body().path("state").asString("").equals("RUNNING")) {
          return answer;
        }
        try {
          Thread.sleep(100);
        } catch (InterruptedException e) {
          throw new IllegalStateException(e);
        }
      }
      throw new IllegalStateException("job " + id + " does not end");
    }
  }
}
