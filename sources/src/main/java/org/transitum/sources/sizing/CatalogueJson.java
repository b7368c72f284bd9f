package org.transitum.sources.sizing;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.transitum.core.sizing.Catalogue;
import org.transitum.core.sizing.Catalogue.Limit;
import org.transitum.core.sizing.Catalogue.Storage;
import org.transitum.core.sizing.Catalogue.TargetKind;
import org.transitum.core.sizing.Catalogue.Tier;
import org.transitum.core.sizing.Dimension;
import org.transitum.sources.files.Problems;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads a catalogue, the format of docs/formats/catalogue.schema.json. */
public final class CatalogueJson {
  private static final int MOST_BYTES = 4 << 20;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private CatalogueJson() {}

  /**
   * @throws org.transitum.sources.files.BadFile with everything that is against the schema
   */
  public static Catalogue read(String file, InputStream content) {
    Problems problems = new Problems(file);
    try {
      byte[] bytes = content.readNBytes(MOST_BYTES + 1);
      if (bytes.length > MOST_BYTES) {
        problems.add(null, null, "A catalogue of more than 4 MiB is not read.");
        problems.throwIfAny();
      }
      String text = new String(bytes, StandardCharsets.UTF_8);
      JsonNode root = JSON.readTree(text);
      schema()
          .validate(text, InputFormat.JSON)
          .forEach(
              error ->
                  problems.add(null, error.getInstanceLocation().toString(), error.getMessage()));
      problems.throwIfAny();
      Catalogue catalogue = catalogue(root);
      references(catalogue, problems);
      problems.throwIfAny();
      return catalogue;
    } catch (JacksonException e) {
      problems.add(
          (long) Math.max(1, e.getLocation().getLineNr()),
          null,
          "Not JSON: " + e.getOriginalMessage());
      problems.throwIfAny();
      throw new IllegalStateException(e);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static Schema schema() throws IOException {
    try (InputStream in =
        CatalogueJson.class.getResourceAsStream("/formats/catalogue.schema.json")) {
      if (in == null) {
        throw new IOException("the catalogue's schema is not in the build");
      }
      return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
          .getSchema(new String(in.readAllBytes(), StandardCharsets.UTF_8), InputFormat.JSON);
    }
  }

  private static Catalogue catalogue(JsonNode root) {
    List<TargetKind> kinds = new ArrayList<>();
    for (JsonNode kind : root.path("kinds")) {
      List<String> engines = new ArrayList<>();
      kind.path("engines").forEach(engine -> engines.add(engine.asString()));
      kinds.add(new TargetKind(text(kind, "id"), text(kind, "name"), List.copyOf(engines)));
    }
    List<Tier> tiers = new ArrayList<>();
    root.path("tiers").forEach(tier -> tiers.add(tier(tier)));
    return new Catalogue(
        text(root, "name"),
        text(root, "currency"),
        root.path("hours_per_month").asInt(730),
        List.copyOf(kinds),
        List.copyOf(tiers));
  }

  private static Tier tier(JsonNode tier) {
    Map<Dimension, Limit> limits = new EnumMap<>(Dimension.class);
    tier.path("limits")
        .properties()
        .forEach(
            entry -> {
              JsonNode limit = entry.getValue();
              limits.put(
                  Dimension.valueOf(entry.getKey().toUpperCase(Locale.ROOT)),
                  new Limit(
                      limit.path("base").asDouble(0),
                      limit.path("per_gib").asDouble(0),
                      limit.has("cap") ? limit.path("cap").asDouble() : null));
            });
    JsonNode storage = tier.path("storage");
    return new Tier(
        text(tier, "id"),
        text(tier, "name"),
        text(tier, "kind"),
        tier.path("cpu_cores").asDouble(),
        tier.path("cpu_index").asDouble(1),
        tier.path("memory_gib").asDouble(),
        tier.path("price_per_hour").asDouble(),
        tier.path("price_per_gib_month").asDouble(),
        new Storage(
            storage.path("min_gib").asInt(),
            storage.path("max_gib").asInt(),
            storage.path("step_gib").asInt()),
        limits);
  }

  private static void references(Catalogue catalogue, Problems problems) {
    Set<String> kinds = new HashSet<>();
    catalogue.kinds().forEach(kind -> kinds.add(kind.id()));
    Set<String> ids = new HashSet<>();
    for (Tier tier : catalogue.tiers()) {
      if (!kinds.contains(tier.kind())) {
        problems.add(
            null,
            "/tiers/" + tier.id(),
            "The kind \"%s\" is not among the kinds of this file.".formatted(tier.kind()));
      }
      if (!ids.add(tier.id())) {
        problems.add(null, "/tiers/" + tier.id(), "This id stands twice; give each tier its own.");
      }
      if (tier.storage().minGib() > tier.storage().maxGib()) {
        problems.add(null, "/tiers/" + tier.id() + "/storage", "min_gib is above max_gib.");
      }
    }
  }

  private static String text(JsonNode node, String name) {
    return node.path(name).asString("");
  }
}
