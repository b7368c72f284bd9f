package org.transitum.bench;

import java.io.IOException;
import java.util.List;

/** Runs the benchmarks whose results stand in docs/performance.md. */
public final class Bench {
  private Bench() {}

  public static void main(String[] args) throws IOException {
    List<String> wanted = args.length == 0 ? List.of("counters", "sizing", "waves") : List.of(args);
    for (String name : wanted) {
      System.out.println("== " + name);
      switch (name) {
        case "counters" -> CountersBench.run();
        case "sizing" -> SizingBench.run();
        case "waves" -> WavesBench.run();
        default -> {
          System.err.println("no benchmark " + name + "; there are counters, sizing, waves");
          System.exit(2);
        }
      }
    }
  }
}
