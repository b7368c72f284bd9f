package org.transitum.collector;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.AttributeType;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.dataformat.yaml.YAMLMapper;

/**
 * What a collector reads and samples: the YAML of docs/formats/collection.schema.json.
 *
 * @param folder where what was collected is kept
 * @param budgetBytes most that the folder may take
 * @param duration how long it samples from the first start on
 * @param push null where bundles are carried by hand
 */
record CollectionList(
    String site,
    Path folder,
    long budgetBytes,
    Duration discoverEvery,
    Duration every,
    Duration duration,
    List<ListedServer> servers,
    @Nullable PushTarget push) {
  private static final long LEAST_BUDGET = 1 << 20;
  private static final Pattern DURATION = Pattern.compile("(\\d+) ?(s|min|h|days?)");
  private static final YAMLMapper YAML = YAMLMapper.builder().build();

  record ListedServer(
      String instance,
      ReadableEngine engine,
      String engineName,
      String host,
      int port,
      String database,
      String user,
      Secret password,
      TlsMode tls) {}

  record PushTarget(URI server, Secret token, Duration every) {}

  /**
   * @throws BadFile with everything that is wrong
   */
  static CollectionList read(Path file) {
    String name = file.getFileName().toString();
    JsonNode root;
    try {
      root = YAML.readTree(Files.readString(file));
    } catch (JacksonException e) {
      throw new BadFile(
          List.of(
              new org.transitum.sources.files.FileProblem(
                  name,
                  e.getLocation() == null ? null : (long) e.getLocation().getLineNr(),
                  null,
                  "Not YAML: " + e.getOriginalMessage().lines().findFirst().orElse("") + ".")),
          1);
    } catch (IOException e) {
      throw BadFile.whole(name, "The list cannot be read: " + e.getMessage() + ".");
    }
    return new Parser(file.toAbsolutePath().resolveSibling(""), new Problems(name))
        .list(JsonDocument.read(name, root.toString(), "collection.schema.json"));
  }

  /** Reads what the schema has let through. */
  private record Parser(Path base, Problems problems) {

    CollectionList list(JsonNode root) {
      List<ListedServer> servers = new ArrayList<>();
      Set<String> names = new HashSet<>();
      for (JsonNode node : root.path("servers")) {
        ListedServer server = server(node);
        if (!names.add(server.instance().toLowerCase(Locale.ROOT))) {
          problems.add(null, "servers", "%s is listed twice.".formatted(server.instance()));
        }
        servers.add(server);
      }
      JsonNode sampling = root.path("sampling");
      Duration every = duration(sampling.path("every").asString("60 s"));
      if (every.toSeconds() < 10 || every.toHours() > 1 || every.toSeconds() > 3_600) {
        problems.add(null, "sampling/every", "Choose 10 s to 1 h between samples.");
      }
      CollectionList list =
          new CollectionList(
              root.path("site").asString(),
              base.resolve(root.path("folder").asString()).normalize(),
              bytes(root.path("disk_budget").asString("2 GB")),
              duration(root.path("discover_every").asString("1 day")),
              every,
              duration(sampling.path("for").asString("14 days")),
              List.copyOf(servers),
              root.has("push") ? push(root.path("push")) : null);
      problems.throwIfAny();
      return list;
    }

    private ListedServer server(JsonNode node) {
      String engineName = node.path("engine").asString();
      ReadableEngine engine =
          switch (engineName) {
            case "PostgreSQL" -> ReadableEngine.POSTGRESQL;
            case "MariaDB", "MySQL" -> ReadableEngine.MARIADB;
            default -> ReadableEngine.OTHER;
          };
      TlsMode tls =
          switch (node.path("tls").asString("prefer")) {
            case "off" -> TlsMode.DISABLE;
            case "require" -> TlsMode.REQUIRE;
            case "verify" -> TlsMode.VERIFY;
            default -> TlsMode.PREFER;
          };
      return new ListedServer(
          node.path("instance").asString(),
          engine,
          engineName,
          node.path("host").asString(),
          node.path("port").asInt(engine.defaultPort()),
          node.path("database").asString(engine == ReadableEngine.POSTGRESQL ? "postgres" : ""),
          node.path("user").asString(),
          secret(node, "password"),
          tls);
    }

    private PushTarget push(JsonNode node) {
      URI server = URI.create(node.path("server").asString());
      if ("http".equals(server.getScheme()) && !isHere(server.getHost())) {
        problems.add(
            null,
            "push/server",
            "Over http the token could be read on its way; write https, as only this machine itself may be spoken to in the clear.");
      }
      return new PushTarget(
          server, secret(node, "token"), duration(node.path("every").asString("1 h")));
    }

    private static boolean isHere(@Nullable String host) {
      try {
        return host != null && InetAddress.getByName(host).isLoopbackAddress();
      } catch (UnknownHostException e) {
        return false;
      }
    }

    private Secret secret(JsonNode node, String what) {
      return node.has(what + "_env")
          ? Secret.ofVariable(node.path(what + "_env").asString())
          : Secret.ofFile(base.resolve(node.path(what + "_file").asString()));
    }

    private long bytes(String text) {
      try {
        long bytes = Long.parseLong(AttributeType.BYTES.canonical(text));
        if (bytes < LEAST_BUDGET) {
          problems.add(null, "disk_budget", "Allow at least 1 MB.");
        }
        return bytes;
      } catch (InvalidValue e) {
        problems.add(null, "disk_budget", e.getMessage());
        return LEAST_BUDGET;
      }
    }

    private static Duration duration(String text) {
      Matcher matcher = DURATION.matcher(text);
      if (!matcher.matches()) {
        throw new IllegalStateException(text + " passed the schema");
      }
      long amount = Long.parseLong(matcher.group(1));
      return switch (matcher.group(2)) {
        case "s" -> Duration.ofSeconds(amount);
        case "min" -> Duration.ofMinutes(amount);
        case "h" -> Duration.ofHours(amount);
        default -> Duration.ofDays(amount);
      };
    }
  }
}
