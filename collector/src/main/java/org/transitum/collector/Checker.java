package org.transitum.collector;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.transitum.collector.CollectionList.ListedServer;
import org.transitum.sources.counters.ServerSampler;

/** Tries whether the listed servers answer, by taking a sample of each that nobody keeps. */
final class Checker {
  private Checker() {}

  /** Returns how many do not answer. */
  static int run(CollectionList list, Progress progress) throws InterruptedException {
    ExecutorService workers = Executors.newCachedThreadPool();
    int failed = 0;
    try {
      List<Future<String>> answers = new ArrayList<>();
      list.servers().forEach(server -> answers.add(workers.submit(() -> answer(server))));
      for (int i = 0; i < answers.size(); i++) {
        String words;
        try {
          words = answers.get(i).get();
        } catch (ExecutionException e) {
          failed++;
          Throwable cause = e.getCause() == null ? e : e.getCause();
          words = String.valueOf(cause.getMessage());
        }
        progress.tell("%s: %s".formatted(list.servers().get(i).instance(), words));
      }
    } finally {
      workers.shutdownNow();
      workers.awaitTermination(1, TimeUnit.SECONDS);
    }
    return failed;
  }

  private static String answer(ListedServer server) {
    int samples =
        ServerSampler.of(server.engine())
            .sample(Collector.address(server), server.instance())
            .size();
    return "answers; %d counters".formatted(samples);
  }
}
