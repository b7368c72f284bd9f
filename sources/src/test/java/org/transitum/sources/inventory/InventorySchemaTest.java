package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The published schema names every attribute, so that others can fill the file. */
class InventorySchemaTest {

  private static Set<String> named(String array) throws Exception {
    JsonNode schema =
        JsonMapper.builder()
            .build()
            .readTree(Files.readString(Path.of("../docs/formats/inventory.schema.json")));
    return new TreeSet<>(
        schema.path("properties").path(array).path("items").path("properties").propertyNames());
  }

  private static Set<String> columns(ObjectKind... kinds) {
    Set<String> columns = new TreeSet<>();
    for (ObjectKind kind : kinds) {
      Attribute.of(kind).forEach(attribute -> columns.add(attribute.column()));
    }
    return columns;
  }

  @Test
  void everyAttributeStandsInTheSchema() throws Exception {
    Set<String> servers = columns(ObjectKind.HOST, ObjectKind.INSTANCE);
    servers.add("instance");
    assertThat(named("servers")).isEqualTo(servers);
    Set<String> databases = columns(ObjectKind.DATABASE);
    databases.add("instance");
    databases.add("database");
    assertThat(named("databases")).isEqualTo(databases);
    Set<String> applications = columns(ObjectKind.APPLICATION);
    applications.add("application");
    assertThat(named("applications")).isEqualTo(applications);
  }

  @Test
  void theFormatsPageNamesEveryAttribute() throws Exception {
    String page = Files.readString(Path.of("../docs/formats/inventory.md"));
    for (Attribute attribute : Attribute.values()) {
      assertThat(page).contains("`" + attribute.column() + "`");
    }
  }
}
