package org.transitum.sources.dependencies;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import java.util.Set;
import org.junit.jupiter.api.Test;
import org.transitum.core.dependencies.Tie;
import org.transitum.core.dependencies.TieKind;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;

class TiesCsvTest {
  private static final Set<String> KNOWN = Set.of("A/1", "A/2");

  @Test
  void takesTiesWithTheirWeightAndEvidence() {
    assertThat(
            TiesCsv.read(
                "t.csv",
                of("from,to,kind,weight,evidence", "A/1,A/2,loose,2.5,nightly feed"),
                KNOWN::contains))
        .containsExactly(
            new TiesCsv.TieRow(new Tie("A/1", "A/2", TieKind.LOOSE, 2.5), "nightly feed", 2));
  }

  @Test
  void namesWhatIsWrongWhere() {
    BadFile bad =
        refused(
            () ->
                TiesCsv.read(
                    "t.csv",
                    of(
                        "from,to,kind,weight",
                        "A/1,B/9,bound,",
                        "A/1,A/1,bound,",
                        "A/1,A/2,tight,",
                        "A/1,A/2,loose,much",
                        "A/1,A/2,loose,1",
                        "A/1,A/2,bound,1"),
                    KNOWN::contains));
    assertThat(bad.problems())
        .extracting(FileProblem::row, FileProblem::column)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(2L, "to"),
            org.assertj.core.groups.Tuple.tuple(3L, "to"),
            org.assertj.core.groups.Tuple.tuple(4L, "kind"),
            org.assertj.core.groups.Tuple.tuple(5L, "weight"),
            org.assertj.core.groups.Tuple.tuple(7L, "to"));
    assertThat(bad.problems().get(0).sentence()).contains("B/9", "no database of the inventory");
  }
}
