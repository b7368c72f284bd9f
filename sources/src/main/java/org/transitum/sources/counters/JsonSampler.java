package org.transitum.sources.counters;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import org.transitum.core.counters.Counter;
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import org.transitum.sources.inventory.JsonService;
import org.transitum.sources.inventory.ServerAddress;
import tools.jackson.databind.JsonNode;

/** Samples a server that tells its counters as JSON over HTTP (docs/formats/reading.md). */
final class JsonSampler {
  private static final int MOST_BYTES = 32 << 20;

  private JsonSampler() {}

  /** See {@link ServerSampler#sample}. */
  static List<Sample> sample(ServerAddress address, String instance) {
    return JsonService.get(address, "samples", body -> read(address.host(), body, instance));
  }

  private static List<Sample> read(String file, byte[] body, String instance) {
    JsonNode root =
        JsonDocument.read(file, new ByteArrayInputStream(body), "samples.schema.json", MOST_BYTES);
    Problems problems = new Problems(file);
    List<Sample> samples = new ArrayList<>();
    int at = 0;
    for (JsonNode node : root.path("samples")) {
      String where = "/samples/" + at++;
      String object = node.path("object").asString();
      Counter counter = Counter.ofColumn(node.path("counter").asString()).orElse(null);
      if (counter == null) {
        problems.add(null, where + "/counter", "It is no counter of docs/formats/counters.md.");
      } else if (!object.equals(instance) && !object.startsWith(instance + "/")) {
        problems.add(null, where + "/object", "\"%s\" is not of %s.".formatted(object, instance));
      } else {
        samples.add(new Sample(object, counter, node.path("value").asDouble()));
      }
    }
    problems.throwIfAny();
    return samples;
  }
}
