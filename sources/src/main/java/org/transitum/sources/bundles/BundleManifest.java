package org.transitum.sources.bundles;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What a bundle holds: the format of docs/formats/bundle.schema.json.
 *
 * @param id by which a bundle that comes twice is known
 * @param site the network it was collected in
 * @param from start of what was collected, {@code to} its end
 */
public record BundleManifest(
    UUID id,
    String site,
    Instant madeAt,
    Instant from,
    Instant to,
    List<BundledServer> servers,
    List<BundledFile> files) {
  static final String NAME = "manifest.json";
  private static final int LONGEST_PROBLEM = 1_000;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  /**
   * One server of the collector's list.
   *
   * @param reading path of its reading, {@code counters} of its samples; null where there are none
   * @param problem why something is missing
   */
  public record BundledServer(
      String instance,
      String engine,
      @Nullable String reading,
      @Nullable String counters,
      long samples,
      @Nullable String problem) {}

  public record BundledFile(String path, long bytes, String sha256) {}

  /**
   * @throws org.transitum.sources.files.BadFile with everything that is wrong
   */
  static BundleManifest read(String file, String text) {
    JsonNode root = JsonDocument.read(file, text, "bundle.schema.json");
    List<BundledFile> files = new ArrayList<>();
    for (JsonNode node : root.path("files")) {
      files.add(
          new BundledFile(
              node.path("path").asString(),
              node.path("bytes").asLong(),
              node.path("sha256").asString()));
    }
    List<BundledServer> servers = new ArrayList<>();
    for (JsonNode node : root.path("servers")) {
      servers.add(
          new BundledServer(
              node.path("instance").asString(),
              node.path("engine").asString(),
              node.path("reading").asString(null),
              node.path("counters").asString(null),
              node.path("samples").asLong(0),
              node.path("problem").asString(null)));
    }
    BundleManifest manifest =
        new BundleManifest(
            UUID.fromString(root.path("id").asString()),
            root.path("site").asString(),
            Instant.parse(root.path("made_at").asString()),
            Instant.parse(root.path("from").asString()),
            Instant.parse(root.path("to").asString()),
            List.copyOf(servers),
            List.copyOf(files));
    manifest.check(file);
    return manifest;
  }

  private void check(String file) {
    Problems problems = new Problems(file);
    Set<String> paths = new HashSet<>();
    for (BundledFile each : files) {
      if (!paths.add(each.path())) {
        problems.add(null, "files", "%s is listed twice.".formatted(each.path()));
      }
    }
    Set<String> instances = new HashSet<>();
    for (BundledServer server : servers) {
      if (!instances.add(server.instance())) {
        problems.add(null, "servers", "%s is listed twice.".formatted(server.instance()));
      }
      for (String path : new String[] {server.reading(), server.counters()}) {
        if (path != null && !paths.contains(path)) {
          problems.add(
              null,
              "servers",
              "%s names %s, which is not among the files.".formatted(server.instance(), path));
        }
      }
    }
    problems.throwIfAny();
  }

  byte[] write() {
    ObjectNode root = JSON.createObjectNode();
    root.put("format", "transitum-bundle").put("version", 1);
    root.put("id", id.toString()).put("site", site).put("made_at", madeAt.toString());
    root.put("from", from.toString()).put("to", to.toString());
    ArrayNode list = root.putArray("servers");
    for (BundledServer server : servers) {
      ObjectNode node = list.addObject();
      node.put("instance", server.instance()).put("engine", server.engine());
      if (server.reading() != null) {
        node.put("reading", server.reading());
      }
      if (server.counters() != null) {
        node.put("counters", server.counters()).put("samples", server.samples());
      }
      if (server.problem() != null) {
        String problem = server.problem();
        node.put(
            "problem",
            problem.length() > LONGEST_PROBLEM ? problem.substring(0, LONGEST_PROBLEM) : problem);
      }
    }
    ArrayNode listed = root.putArray("files");
    for (BundledFile file : files) {
      listed
          .addObject()
          .put("path", file.path())
          .put("bytes", file.bytes())
          .put("sha256", file.sha256());
    }
    return JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(root);
  }
}
