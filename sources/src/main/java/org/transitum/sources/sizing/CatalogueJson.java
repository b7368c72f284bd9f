package org.transitum.sources.sizing;

import java.io.InputStream;
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
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import tools.jackson.databind.JsonNode;

/** Reads a catalogue, the format of docs/formats/catalogue.schema.json. */
public final class CatalogueJson {
  private static final int MOST_BYTES = 4 << 20;

  private CatalogueJson() {}

  /**
   * @throws org.transitum.sources.files.BadFile with everything that is against the schema
   */
  public static Catalogue read(String file, InputStream content) {
    Catalogue catalogue =
        catalogue(JsonDocument.read(file, content, "catalogue.schema.json", MOST_BYTES));
    Problems problems = new Problems(file);
    references(catalogue, problems);
    problems.throwIfAny();
    return catalogue;
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
