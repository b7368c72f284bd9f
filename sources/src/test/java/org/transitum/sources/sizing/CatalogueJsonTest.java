package org.transitum.sources.sizing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import org.junit.jupiter.api.Test;
import org.transitum.core.sizing.Catalogue;
import org.transitum.core.sizing.Dimension;

class CatalogueJsonTest {
  private static final String GOOD =
      """
      {"format":"transitum-catalogue/1","name":"C","currency":"GBP",
       "kinds":[{"id":"db","name":"Database","engines":["PostgreSQL"]}],
       "tiers":[{"id":"t1","name":"T 1","kind":"db","cpu_cores":2,"memory_gib":8,
         "price_per_hour":0.1,"price_per_gib_month":0.1,
         "storage":{"min_gib":10,"max_gib":100,"step_gib":10},
         "limits":{"reads":{"base":100,"per_gib":3,"cap":250}}}]}
      """;

  @Test
  void readsLimitsThatHangOnStorage() {
    Catalogue catalogue = CatalogueJson.read("c.json", of(GOOD));
    assertThat(catalogue.tiers().get(0).limits().get(Dimension.READS).at(20)).isEqualTo(160);
    assertThat(catalogue.tiers().get(0).limits().get(Dimension.READS).at(90)).isEqualTo(250);
    assertThat(catalogue.hoursPerMonth()).isEqualTo(730);
  }

  @Test
  void whatIsAgainstTheSchemaIsNamed() {
    assertThat(
            refused(() -> CatalogueJson.read("c.json", of(GOOD.replace("\"GBP\"", "12"))))
                .problems())
        .anySatisfy(problem -> assertThat(problem.column()).contains("currency"));
    assertThat(
            refused(
                () ->
                    CatalogueJson.read(
                        "c.json", of(GOOD.replace("\"kind\":\"db\"", "\"kind\":\"xx\"")))))
        .hasMessageContaining("\"xx\" is not among the kinds");
    assertThat(refused(() -> CatalogueJson.read("c.json", of("{\"format\":"))))
        .hasMessageContaining("Not JSON");
  }
}
