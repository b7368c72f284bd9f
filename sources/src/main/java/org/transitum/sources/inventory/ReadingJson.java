package org.transitum.sources.inventory;

import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.AttributeType;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import org.transitum.sources.inventory.ServerReading.SeenTie;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What one server told, as JSON: the format of docs/formats/reading.schema.json. */
public final class ReadingJson {
  private static final int MOST_BYTES = 64 << 20;
  private static final int MOST_UNREAD = 10_000;
  private static final int LONGEST_UNREAD = 1_000;
  private static final int LONGEST_HOW = 500;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final String instance;
  private final Problems problems;
  private final Set<String> told = new HashSet<>();

  private ReadingJson(String file, String instance) {
    this.instance = instance;
    this.problems = new Problems(file);
  }

  /**
   * @param instance the only instance that the document may tell of
   * @throws org.transitum.sources.files.BadFile with everything that is wrong
   */
  public static ServerReading read(String file, InputStream content, String instance) {
    JsonNode root = JsonDocument.read(file, content, "reading.schema.json", MOST_BYTES);
    return new ReadingJson(file, instance).reading(root);
  }

  private ServerReading reading(JsonNode root) {
    String named = root.path("instance").asString();
    if (!named.equals(instance)) {
      problems.add(
          null, "/instance", "It tells of %s, not of %s as asked.".formatted(named, instance));
    }
    List<ReadObject> objects = new ArrayList<>();
    int at = 0;
    for (JsonNode node : root.path("objects")) {
      objects.add(object(node, "/objects/" + at++));
    }
    List<SeenTie> ties = new ArrayList<>();
    at = 0;
    for (JsonNode node : root.path("ties")) {
      String from = node.path("from").asString();
      requireOwn(ObjectKind.DATABASE, from, "/ties/" + at++ + "/from");
      ties.add(
          new SeenTie(
              from,
              node.path("host").asString(),
              node.path("port").asInt(),
              node.path("database").asString(),
              node.path("how").asString()));
    }
    List<String> unread = root.path("unread").valueStream().map(JsonNode::asString).toList();
    Instant readAt = instant(root.path("read_at").asString());
    problems.throwIfAny();
    return new ServerReading(
        new Reading(
            ServerReading.source(instance), Origin.OBSERVED, readAt, List.copyOf(objects), unread),
        List.copyOf(ties));
  }

  private Instant instant(String text) {
    try {
      return Instant.parse(text);
    } catch (java.time.format.DateTimeParseException e) {
      problems.add(null, "/read_at", "\"%s\" is no time.".formatted(text));
      return Instant.EPOCH;
    }
  }

  private ReadObject object(JsonNode node, String where) {
    ObjectKind kind = ObjectKind.valueOf(node.path("kind").asString().toUpperCase(Locale.ROOT));
    String key = node.path("key").asString();
    requireOwn(kind, key, where + "/key");
    if (!told.add(kind + ":" + key)) {
      problems.add(null, where + "/key", "\"%s\" is told twice.".formatted(key));
    }
    Map<Attribute, String> facts = new EnumMap<>(Attribute.class);
    node.path("facts")
        .properties()
        .forEach(
            entry -> {
              String place = where + "/facts/" + entry.getKey();
              Attribute attribute = Attribute.ofColumn(entry.getKey()).orElse(null);
              if (attribute == null || !attribute.describes(kind)) {
                problems.add(
                    null,
                    place,
                    "\"%s\" is no fact of this kind of object (%s); docs/formats/inventory.md lists what is."
                        .formatted(entry.getKey(), kind.name().toLowerCase(Locale.ROOT)));
              } else {
                value(attribute, entry.getValue(), place, facts);
              }
            });
    return new ReadObject(kind, key, node.path("place").asString(""), facts);
  }

  private void value(
      Attribute attribute, JsonNode node, String place, Map<Attribute, String> facts) {
    String text =
        node.isArray()
            ? String.join(", ", node.valueStream().map(JsonNode::asString).toList())
            : node.asString();
    try {
      facts.put(attribute, attribute.type().canonical(text));
    } catch (InvalidValue e) {
      problems.add(null, place, e.getMessage());
    }
  }

  /** A server tells of itself, its databases and its host, and of no other server. */
  private void requireOwn(ObjectKind kind, String key, String where) {
    boolean own =
        switch (kind) {
          case INSTANCE -> key.equals(instance);
          case DATABASE -> key.startsWith(instance + "/") && key.length() > instance.length() + 1;
          case HOST, APPLICATION -> true;
        };
    if (!own) {
      problems.add(null, where, "\"%s\" is not of %s.".formatted(key, instance));
    }
  }

  /** The document that {@link #read} gives back as it was. */
  public static byte[] write(String instance, ServerReading read) {
    ObjectNode root = JSON.createObjectNode();
    root.put("format", "transitum-reading").put("version", 1).put("instance", instance);
    root.put("read_at", read.reading().at().toString());
    ArrayNode objects = root.putArray("objects");
    for (ReadObject object : read.reading().objects()) {
      ObjectNode node = objects.addObject();
      node.put("kind", object.kind().name().toLowerCase(Locale.ROOT));
      node.put("key", object.key()).put("place", object.place());
      ObjectNode facts = node.putObject("facts");
      object.values().forEach((attribute, value) -> put(facts, attribute, value));
    }
    ArrayNode ties = root.putArray("ties");
    for (SeenTie tie : read.ties()) {
      ties.addObject()
          .put("from", tie.from())
          .put("host", tie.host())
          .put("port", tie.port())
          .put("database", tie.database())
          .put("how", cut(tie.how(), LONGEST_HOW));
    }
    ArrayNode unread = root.putArray("unread");
    read.reading().unread().stream()
        .limit(MOST_UNREAD)
        .map(words -> cut(words, LONGEST_UNREAD))
        .forEach(unread::add);
    return JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(root);
  }

  private static String cut(String words, int longest) {
    return words.length() > longest ? words.substring(0, longest) : words;
  }

  private static void put(ObjectNode facts, Attribute attribute, String value) {
    AttributeType type = attribute.type();
    if (type == AttributeType.BYTES || type == AttributeType.INTEGER) {
      facts.put(attribute.column(), Long.parseLong(value));
    } else {
      facts.put(attribute.column(), value);
    }
  }
}
