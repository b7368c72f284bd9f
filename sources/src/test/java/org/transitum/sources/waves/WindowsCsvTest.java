package org.transitum.sources.waves;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.transitum.sources.files.FileProblem;

class WindowsCsvTest {
  private static final String HEAD = "kind,wave,name,starts_at,ends_at,max_databases,max_gib";

  @Test
  void readsWindowsAndFreezes() {
    WindowsCsv.Windows windows =
        WindowsCsv.read(
            "w.csv",
            of(
                HEAD,
                "window,W01,Pilot,2027-01-02T20:00+00:00,2027-01-03T04:00+00:00,12,1",
                "freeze,,Year end,2026-12-15T00:00Z,2027-01-04T00:00Z,,"));
    assertThat(windows.windows().get(0).maxBytes()).isEqualTo(1L << 30);
    assertThat(windows.freezes().get(0).end()).isEqualTo(Instant.parse("2027-01-04T00:00:00Z"));
  }

  @Test
  void namesWhatIsWrongWhere() {
    assertThat(
            refused(
                    () ->
                        WindowsCsv.read(
                            "w.csv",
                            of(
                                HEAD,
                                "window,W01,Swapped,2027-01-03T04:00Z,2027-01-02T20:00Z,12,1",
                                "window,first,x,2027-01-02T20:00Z,2027-01-03T04:00Z,12,1",
                                "window,W02,x,2027-01-02T20:00Z,2027-01-03T04:00Z,none,1",
                                "window,W03,x,2027-01-02 20:00,2027-01-03T04:00Z,1,1",
                                "pause,W04,x,2027-01-02T20:00Z,2027-01-03T04:00Z,1,1")))
                .problems())
        .extracting(FileProblem::column)
        .containsExactly("ends_at", "wave", "max_databases", "starts_at", "kind");
  }
}
