package org.transitum.sources.files;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads a JSON document of one of our own formats, held against its published schema. */
public final class JsonDocument {
  private static final int DEEPEST = 16;
  private static final int LONGEST_WORDS = 300;
  private static final JsonMapper JSON =
      JsonMapper.builder(
              JsonFactory.builder()
                  .streamReadConstraints(
                      StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
                  .build())
          .build();

  private JsonDocument() {}

  /**
   * @param schema file of docs/formats, such as {@code catalogue.schema.json}
   * @param mostBytes a larger document is not read
   * @throws BadFile with everything that is against the schema
   */
  public static JsonNode read(String file, InputStream content, String schema, int mostBytes) {
    try {
      byte[] bytes = content.readNBytes(mostBytes + 1);
      if (bytes.length > mostBytes) {
        throw BadFile.whole(
            file, "The document is larger than %,d KiB.".formatted(mostBytes >> 10));
      }
      return read(file, new String(bytes, StandardCharsets.UTF_8), schema);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** See {@link #read(String, InputStream, String, int)}. */
  public static JsonNode read(String file, String text, String schema) {
    Problems problems = new Problems(file);
    JsonNode root = parsed(text, problems);
    problems.throwIfAny();
    SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
        .getSchema(resource("/formats/" + schema), InputFormat.JSON)
        .validate(text, InputFormat.JSON)
        .forEach(
            error ->
                problems.add(
                    null, error.getInstanceLocation().toString(), cut(error.getMessage())));
    problems.throwIfAny();
    return root;
  }

  private static JsonNode parsed(String text, Problems problems) {
    try {
      return JSON.readTree(text);
    } catch (JacksonException e) {
      problems.add(
          e.getLocation() == null ? 1L : Math.max(1L, e.getLocation().getLineNr()),
          null,
          "Not JSON: " + cut(e.getOriginalMessage()) + ".");
      return JSON.missingNode();
    }
  }

  private static String cut(@Nullable String words) {
    String some = words == null ? "no reason given" : words;
    return some.length() > LONGEST_WORDS ? some.substring(0, LONGEST_WORDS) + "…" : some;
  }

  /** The text of a resource of the build. */
  public static String resource(String name) {
    try (InputStream in = JsonDocument.class.getResourceAsStream(name)) {
      if (in == null) {
        throw new IllegalStateException("no resource " + name);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
