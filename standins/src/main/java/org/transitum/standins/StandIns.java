package org.transitum.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Simulated servers on one loopback port: {@code GET /INSTANCE/reading} and {@code GET
 * /INSTANCE/samples}, as docs/formats/reading.md has them, each with its own trouble.
 */
public final class StandIns implements AutoCloseable {
  /** Public, as what they guard is made up. */
  public static final String USER = "transitum";

  public static final String PASSWORD = "standin";
  private static final int SLOW_MILLIS = 6_000;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final HttpServer http;
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private final Map<String, StandIn> servers = new ConcurrentHashMap<>();
  private final Set<String> read = ConcurrentHashMap.newKeySet();
  private final Clock clock;
  private final int slowMillis;

  private StandIns(HttpServer http, List<StandIn> all, Clock clock, int slowMillis) {
    this.http = http;
    this.clock = clock;
    this.slowMillis = slowMillis;
    all.forEach(server -> servers.put(server.instance(), server));
  }

  /** Those of the demo estate, on a free port. */
  public static StandIns start(Clock clock) throws IOException {
    return start(demo(), clock, SLOW_MILLIS);
  }

  /**
   * @param slowMillis how long a slow one takes
   */
  public static StandIns start(List<StandIn> servers, Clock clock, int slowMillis)
      throws IOException {
    HttpServer http =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    StandIns all = new StandIns(http, servers, clock, slowMillis);
    http.createContext("/", all::answer);
    http.setExecutor(all.workers);
    http.start();
    return all;
  }

  /** The stand-ins of the demo estate. */
  public static List<StandIn> demo() {
    try (InputStream in = StandIns.class.getResourceAsStream("/standins/demo.json")) {
      return JSON.readValue(in, new TypeReference<List<StandIn>>() {});
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  public int port() {
    return http.getAddress().getPort();
  }

  private void answer(HttpExchange exchange) throws IOException {
    try (exchange) {
      String[] path = exchange.getRequestURI().getPath().split("/");
      StandIn server = path.length == 3 ? servers.get(path[1]) : null;
      if (server == null || !exchange.getRequestMethod().equals("GET")) {
        send(exchange, 404, "text/plain", "Nothing is here.".getBytes(StandardCharsets.UTF_8));
      } else if (!allowed(exchange) || server.trouble() == Trouble.REFUSING) {
        send(exchange, 401, "text/plain", "Not for you.".getBytes(StandardCharsets.UTF_8));
      } else {
        trouble(server);
        byte[] body = body(server, path[2]);
        if (body == null) {
          send(exchange, 404, "text/plain", "Nothing is here.".getBytes(StandardCharsets.UTF_8));
        } else if (server.trouble() == Trouble.BREAKING) {
          exchange.getResponseHeaders().set("Content-Type", "application/json");
          exchange.sendResponseHeaders(200, body.length);
          exchange.getResponseBody().write(body, 0, body.length / 2);
        } else {
          send(exchange, 200, "application/json", body);
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void trouble(StandIn server) throws InterruptedException {
    if (server.trouble() == Trouble.SLOW) {
      Thread.sleep(slowMillis);
    } else if (server.trouble() == Trouble.HANGING) {
      Thread.sleep(Long.MAX_VALUE);
    }
  }

  private byte @Nullable [] body(StandIn server, String what) {
    return switch (what) {
      case "reading" -> {
        boolean first = read.add(server.instance());
        yield new Telling(server, clock.instant(), first).reading();
      }
      case "samples" ->
          new Telling(server, clock.instant(), !read.contains(server.instance())).samples();
      default -> null;
    };
  }

  private static boolean allowed(HttpExchange exchange) {
    String pair =
        Base64.getEncoder()
            .encodeToString((USER + ":" + PASSWORD).getBytes(StandardCharsets.UTF_8));
    return ("Basic " + pair).equals(exchange.getRequestHeaders().getFirst("Authorization"));
  }

  private static void send(HttpExchange exchange, int status, String type, byte[] body)
      throws IOException {
    exchange.getResponseHeaders().set("Content-Type", type);
    exchange.sendResponseHeaders(status, body.length);
    exchange.getResponseBody().write(body);
  }

  @Override
  public void close() {
    workers.shutdownNow();
    http.stop(0);
  }
}
