package org.transitum.collector;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.transitum.collector.CollectionList.ListedServer;
import org.transitum.collector.CollectionList.PushTarget;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.counters.ServerSampler;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.inventory.ServerAddress;
import org.transitum.sources.inventory.ServerReader;
import org.transitum.sources.inventory.ServerReading;
import org.transitum.sources.inventory.Unreachable;

/**
 * Reads and samples the listed servers until the collection ends or is stopped. Each server has a
 * thread of its own while it is asked, so that one that hangs holds up no other. What is kept
 * survives a stop at any moment; started again, it goes on towards the same end.
 */
final class Collector implements AutoCloseable {
  private static final Duration PUSH_RETRY = Duration.ofMinutes(2);
  private static final Duration LATE_SAMPLES = Duration.ofMinutes(2);
  private static final double MIB = 1 << 20;

  /** Nine packed (measured on 300 databases with six counters), in the folder and in a bundle. */
  private static final long BYTES_A_SAMPLE = 18;

  /** How a run ended. */
  enum End {
    COMPLETE,
    STOPPED,
    BUDGET
  }

  private final CollectionList list;
  private final Store store;
  private final Clock clock;
  private final Progress progress;
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private final Set<String> asked = ConcurrentHashMap.newKeySet();
  private final AtomicLong samples = new AtomicLong();
  private final Object onePush = new Object();
  private State state;
  private volatile @Nullable Instant nextPush;
  private @Nullable Future<?> discovery;
  private @Nullable Future<?> pushing;
  private long turns;
  private volatile boolean stopped;

  private Collector(CollectionList list, Store store, State state, Clock clock, Progress progress) {
    this.list = list;
    this.store = store;
    this.state = state;
    this.clock = clock;
    this.progress = progress;
  }

  /**
   * @throws InvalidValue when another collector works in the list's folder
   */
  static Collector open(CollectionList list, Clock clock, Progress progress) throws IOException {
    Store store = Store.open(list.folder(), list.budgetBytes(), clock.instant());
    State known = State.read(store.stateFile());
    State state = known == null ? State.fresh(clock.instant()) : known;
    state.write(store.stateFile());
    if (known != null) {
      progress.tell(
          "going on with the collection that began at %s; %.1f MiB are kept"
              .formatted(
                  known.startedAt().truncatedTo(ChronoUnit.SECONDS), store.keptBytes() / MIB));
    }
    return new Collector(list, store, state, clock, progress);
  }

  @Override
  public void close() throws IOException {
    workers.shutdownNow();
    try {
      var unused = workers.awaitTermination(2, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    store.close();
  }

  /** Asks a run to end soon, from any thread. */
  void stop() {
    stopped = true;
  }

  private synchronized void remember(String instance, @Nullable String problem) {
    state = state.withProblem(instance, problem);
  }

  private synchronized State state() {
    return state;
  }

  private synchronized void save() throws IOException {
    state.write(store.stateFile());
  }

  /** Reads every server once. */
  void discover() throws IOException, InterruptedException {
    AtomicInteger done = new AtomicInteger();
    List<Future<?>> all = new ArrayList<>();
    for (ListedServer server : list.servers()) {
      all.add(workers.submit(() -> discover(server, done)));
    }
    for (Future<?> each : all) {
      await(each);
    }
    save();
  }

  private static void await(Future<?> work) throws InterruptedException {
    try {
      work.get();
    } catch (java.util.concurrent.ExecutionException e) {
      throw new IllegalStateException(e.getCause());
    }
  }

  private void discover(ListedServer server, AtomicInteger done) {
    String instance = server.instance();
    String words;
    try {
      ServerReading reading =
          ServerReader.of(server.engine()).read(address(server), instance, clock.instant());
      store.keep(instance, reading);
      remember(instance, null);
      long databases =
          reading.reading().objects().stream()
              .filter(object -> object.kind() == ObjectKind.DATABASE)
              .count();
      int unread = reading.reading().unread().size();
      words =
          "read, %d databases%s"
              .formatted(
                  databases,
                  unread == 0
                      ? ""
                      : ", %d %s not readable".formatted(unread, unread == 1 ? "part" : "parts"));
    } catch (Unreachable | InvalidValue | IOException e) {
      words = told(e);
      remember(instance, words);
    } catch (RuntimeException e) {
      words = "unexpected: " + e;
      remember(instance, words);
    }
    progress.tell(
        "%d of %d  %s: %s"
            .formatted(done.incrementAndGet(), list.servers().size(), instance, words));
  }

  private static String told(Exception e) {
    return e.getMessage() == null ? e.toString() : e.getMessage();
  }

  static ServerAddress address(ListedServer server) {
    return new ServerAddress(
        server.host(),
        server.port(),
        server.database(),
        server.user(),
        server.password().read(),
        server.tls());
  }

  /** Samples every server once, and waits for all of them. */
  void sampleOnce() throws InterruptedException {
    List<Future<?>> all = new ArrayList<>();
    list.servers().forEach(server -> all.add(workers.submit(() -> sample(server))));
    for (Future<?> each : all) {
      await(each);
    }
  }

  private void sample(ListedServer server) {
    String instance = server.instance();
    if (!asked.add(instance)) {
      return;
    }
    try {
      List<Sample> taken = ServerSampler.of(server.engine()).sample(address(server), instance);
      if (store.keep(instance, clock.instant(), taken)) {
        samples.addAndGet(taken.size());
      }
      if (state().problems().containsKey(instance)) {
        progress.tell(instance + ": answers again");
        remember(instance, null);
      }
    } catch (Unreachable | InvalidValue | BadFile | IOException e) {
      if (!told(e).equals(state().problems().get(instance))) {
        progress.tell("%s: %s".formatted(instance, told(e)));
        remember(instance, told(e));
      }
    } finally {
      asked.remove(instance);
    }
  }

  /**
   * Samples until the end, a stop, or the disk budget; pushes on the way where that is asked for.
   */
  End run() throws IOException, InterruptedException {
    Instant end = state().startedAt().plus(list.duration());
    Instant nextSample = clock.instant();
    Instant nextReading = clock.instant();
    Instant nextPack = clock.instant();
    while (!stopped) {
      Instant now = clock.instant();
      if (!now.isBefore(end)) {
        return End.COMPLETE;
      }
      if (!now.isBefore(nextPack)) {
        store.packBefore(now.minus(LATE_SAMPLES));
        save();
        nextPack = now.plus(Duration.ofMinutes(5));
      }
      if (!store.hasRoom() && !makeRoom()) {
        return End.BUDGET;
      }
      if (!now.isBefore(nextReading)) {
        // beside the sampling, as the slowest server decides how long it takes
        discovery =
            workers.submit(
                () -> {
                  discover();
                  return true;
                });
        nextReading = now.plus(list.discoverEvery());
      }
      if (!now.isBefore(nextSample)) {
        list.servers().forEach(server -> workers.submit(() -> sample(server)));
        if (turns > 0) {
          progress.stand(stand(now, end));
        }
        nextSample = next(now);
        turns++;
      }
      pushIfDue(now);
      TimeUnit.MILLISECONDS.sleep(200);
    }
    return End.STOPPED;
  }

  /** The next multiple of the interval, so that samples of all servers fall together. */
  private Instant next(Instant now) {
    long every = list.every().toSeconds();
    return Instant.ofEpochSecond((now.getEpochSecond() / every + 1) * every);
  }

  private String stand(Instant now, Instant end) {
    int failing = state().problems().size();
    int answering = list.servers().size() - failing;
    return "%,d samples of %d %s%s; %,.1f of %,.0f MiB, about %,.1f at the end; until %s"
        .formatted(
            samples.get(),
            answering,
            answering == 1 ? "server" : "servers",
            failing == 0 ? "" : ", %d failing".formatted(failing),
            store.keptBytes() / MIB,
            list.budgetBytes() / MIB,
            expectedBytes(now, end) / MIB,
            end.truncatedTo(ChronoUnit.SECONDS));
  }

  /** What the folder and a bundle of it would take at the end, at the pace so far. */
  private long expectedBytes(Instant now, Instant end) {
    long turnsLeft = Duration.between(now, end).toSeconds() / list.every().toSeconds();
    long perTurn = turns == 0 ? 0 : samples.get() / turns;
    return store.keptBytes() + turnsLeft * perTurn * BYTES_A_SAMPLE;
  }

  private boolean makeRoom() throws IOException {
    if (list.push() != null) {
      push(list.push());
    }
    Instant pushedTo = state().pushedTo();
    return pushedTo != null && store.makeRoom(pushedTo.minus(Duration.ofHours(1)));
  }

  /** Beside the sampling, as a server that is slow to take a bundle must not hold it up. */
  private void pushIfDue(Instant now) {
    PushTarget target = list.push();
    if (target == null || (pushing != null && !pushing.isDone())) {
      return;
    }
    Instant due = nextPush;
    if (due == null) {
      // the first bundle follows the first reading, so that a wrong token is seen at once
      nextPush = discovery != null && discovery.isDone() ? now : null;
    } else if (!now.isBefore(due)) {
      pushing =
          workers.submit(
              () -> {
                nextPush = clock.instant().plus(push(target) ? target.every() : PUSH_RETRY);
                return true;
              });
    }
  }

  /** Pushes what was not pushed yet; tells what came of it. */
  boolean push(PushTarget target) throws IOException {
    synchronized (onePush) {
      return pushNow(target);
    }
  }

  private boolean pushNow(PushTarget target) throws IOException {
    Instant now = clock.instant();
    Path file = store.outbox().resolve(Bundles.name(list.site(), now));
    Bundles.Made made = Bundles.sinceLastPush(list, store, state(), file, now);
    try {
      Pusher.push(target, file);
      synchronized (this) {
        state = state.pushed(now, made.readings());
        save();
      }
      progress.tell("pushed " + made.words());
      return true;
    } catch (IOException | InvalidValue e) {
      progress.tell("not pushed, tried again later: " + told(e));
      return false;
    } finally {
      Files.deleteIfExists(file);
    }
  }

  /** Leaves everything that was collected as one bundle. */
  Bundles.Made bundle(@Nullable Path wanted) throws IOException {
    Instant now = clock.instant();
    Path file = wanted == null ? store.outbox().resolve(Bundles.name(list.site(), now)) : wanted;
    return Bundles.whole(list, store, state(), file, now);
  }

  /** Why servers could not be read or sampled last. */
  Map<String, String> problems() {
    return state().problems();
  }
}
