package org.transitum.collector;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.transitum.collector.Collector.End;
import org.transitum.core.InvalidValue;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The command line of the collector. */
@Command(
    name = "transitum-collect",
    mixinStandardHelpOptions = true,
    version = "transitum-collect 0.1.0",
    description =
        "Reads and samples database servers that Transitum itself cannot reach, and leaves what it found as a bundle, or pushes it.",
    subcommands = {Collect.Run.class, Collect.Check.class, Collect.Bundle.class},
    footer = {
      "",
      "LIST is a YAML file; docs/formats/collection.md describes it. Passwords stand in environment variables or files that it names, never in arguments.",
      "Exit codes: 0 done, 1 some servers could not be read, 2 the list or the call is wrong, 3 the disk budget is used up, 4 not pushed."
    })
public final class Collect {
  private static final int SOME_FAILED = 1;
  private static final int WRONG = 2;
  private static final int BUDGET = 3;
  private static final int NOT_PUSHED = 4;
  private static final int STOP_SECONDS = 5;

  private Collect() {}

  public static void main(String[] arguments) {
    System.exit(commandLine().execute(arguments));
  }

  static CommandLine commandLine() {
    return new CommandLine(new Collect())
        .setExecutionExceptionHandler((e, line, result) -> report(e, line));
  }

  private static int report(Exception e, CommandLine line) throws Exception {
    if (e instanceof BadFile bad) {
      for (FileProblem problem : bad.problems()) {
        line.getErr().println(problem.line());
      }
      return WRONG;
    }
    if (e instanceof InvalidValue || e instanceof IOException) {
      line.getErr().println(e.getMessage());
      return WRONG;
    }
    throw e;
  }

  private static Progress progress() {
    return new Progress(System.out, Clock.systemUTC(), System.console() != null);
  }

  /** Discovers, samples to the end, and bundles or pushes. */
  @Command(
      name = "run",
      mixinStandardHelpOptions = true,
      description =
          "Read the servers, then sample them until the collection ends; goes on where it was stopped.")
  static final class Run implements Callable<Integer> {
    @Parameters(paramLabel = "LIST", description = "The YAML file.")
    private Path file = Path.of("");

    @Option(names = "--once", description = "Read and sample each server once, then end.")
    private boolean once;

    @Override
    public Integer call() throws Exception {
      CollectionList list = CollectionList.read(file);
      CountDownLatch ended = new CountDownLatch(1);
      try (Collector collector = Collector.open(list, Clock.systemUTC(), progress())) {
        Runtime.getRuntime().addShutdownHook(new Thread(() -> stop(collector, ended)));
        End end = End.COMPLETE;
        if (once) {
          collector.discover();
          collector.sampleOnce();
        } else {
          end = collector.run();
        }
        return finish(list, collector, end);
      } finally {
        ended.countDown();
      }
    }

    /** Lets what is being written be finished before the process goes. */
    private static void stop(Collector collector, CountDownLatch ended) {
      collector.stop();
      try {
        ended.await(STOP_SECONDS, TimeUnit.SECONDS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
    }

    private static int finish(CollectionList list, Collector collector, End end)
        throws IOException {
      if (end == End.STOPPED) {
        System.out.printf("%nStopped. The same command goes on; what is there can be bundled.%n");
        return 0;
      }
      if (end == End.BUDGET) {
        System.out.printf(
            "%nThe disk budget is used up, so sampling ended. Carry the bundle, or raise disk_budget and run again.%n");
      }
      if (list.push() != null) {
        if (!collector.push(list.push())) {
          return NOT_PUSHED;
        }
      } else {
        tell(collector.bundle(null));
      }
      return end == End.BUDGET ? BUDGET : collector.problems().isEmpty() ? 0 : SOME_FAILED;
    }
  }

  private static void tell(Bundles.Made made) {
    System.out.printf("Bundle with %s: %s%n", made.words(), made.file().toAbsolutePath());
  }

  /** Tries each server. */
  @Command(
      name = "check",
      mixinStandardHelpOptions = true,
      description = "Check the list, and try each server once without keeping anything.")
  static final class Check implements Callable<Integer> {
    @Parameters(paramLabel = "LIST", description = "The YAML file.")
    private Path file = Path.of("");

    @Override
    public Integer call() throws Exception {
      CollectionList list = CollectionList.read(file);
      return Checker.run(list, progress()) == 0 ? 0 : SOME_FAILED;
    }
  }

  /** Bundles what there is. */
  @Command(
      name = "bundle",
      mixinStandardHelpOptions = true,
      description =
          "Make a bundle of all that was collected so far, also beside a collector that is at work.")
  static final class Bundle implements Callable<Integer> {
    @Parameters(paramLabel = "LIST", description = "The YAML file.")
    private Path file = Path.of("");

    @Option(
        names = "--to",
        paramLabel = "FILE",
        description = "Where to; a name in this folder if absent.")
    private @Nullable Path to;

    @Override
    public Integer call() throws Exception {
      CollectionList list = CollectionList.read(file);
      Clock clock = Clock.systemUTC();
      try (Store store = Store.look(list.folder(), list.budgetBytes())) {
        State state = State.read(store.stateFile());
        if (state == null) {
          throw new InvalidValue(list.folder() + " holds no collection; run it first.");
        }
        Path target = to == null ? Path.of(Bundles.name(list.site(), clock.instant())) : to;
        tell(Bundles.whole(list, store, state, target, clock.instant()));
      }
      return 0;
    }
  }
}
