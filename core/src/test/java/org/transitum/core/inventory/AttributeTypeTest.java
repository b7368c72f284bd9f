package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AttributeTypeTest {

  @ParameterizedTest
  @CsvSource({
    "BYTES, 0042, 42",
    "DECIMAL, 1.50, 1.5",
    "DECIMAL, 0.0, 0",
    "BOOLEAN, ON, yes",
    "ENGINE, postgres, PostgreSQL",
    "ENGINE, sql-server, SQL Server",
    "ENVIRONMENT, Production, production",
    "LIST, 'b; a, b', 'a, b'"
  })
  void equalValuesHaveOneForm(AttributeType type, String written, String canonical) {
    assertThat(type.canonical(written)).isEqualTo(canonical);
  }

  @ParameterizedTest
  @CsvSource({
    "BYTES, 12 GB",
    "BYTES, -1",
    "MINUTES, 1.5",
    "DECIMAL, 1e99999",
    "DATE, 24.11.2026",
    "BOOLEAN, maybe",
    "ENGINE, abacus",
    "CRITICALITY, vital",
    "DISPOSITION, lift"
  })
  void whatCannotBeTakenIsNamed(AttributeType type, String written) {
    assertThatThrownBy(() -> type.canonical(written)).hasMessageContaining(written);
  }

  @Test
  void aKeyNeedsBothParts() {
    assertThat(DatabaseKey.parse("A/b/c").name()).isEqualTo("b/c");
    assertThatThrownBy(() -> DatabaseKey.parse("A")).hasMessageContaining("INSTANCE/database");
    assertThatThrownBy(() -> new DatabaseKey("A", " ")).isNotNull();
  }
}
