package org.transitum.server.live;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells every browser what changed, after the change is committed. The last {@value #KEPT} events
 * are kept, so that a browser which lost its connection misses none; one that was away for longer,
 * or over a restart, is told to read everything again.
 */
@Component
public class LiveFeed {
  private static final int KEPT = 2_000;

  /** This run of the server; ids of another run cannot be resumed. */
  private final String run = Long.toString(System.currentTimeMillis(), 36);

  private final Deque<Event> kept = new ArrayDeque<>();
  private final Set<SseEmitter> emitters = ConcurrentHashMap.newKeySet();
  private long last;

  /**
   * @param topic the capability whose data changed
   * @param key what changed in it
   */
  public record Change(String topic, String key) {}

  private record Event(long number, Change change) {}

  /** Announces a change once the running transaction is committed, or at once where none runs. */
  public void announce(String topic, String key) {
    Change change = new Change(topic, key);
    if (TransactionSynchronizationManager.isSynchronizationActive()) {
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void afterCommit() {
              publish(change);
            }
          });
    } else {
      publish(change);
    }
  }

  /** Number of the last change; as long as it stays, nothing that people share has changed. */
  public synchronized long last() {
    return last;
  }

  /**
   * @param lastEventId the last id the browser saw; null for a first connection
   */
  SseEmitter connect(@Nullable String lastEventId) {
    SseEmitter emitter = new SseEmitter(0L);
    emitter.onCompletion(() -> emitters.remove(emitter));
    emitter.onTimeout(() -> emitters.remove(emitter));
    emitter.onError(e -> emitters.remove(emitter));
    synchronized (this) {
      List<Event> missed = missedSince(lastEventId);
      if (missed == null) {
        send(emitter, new Event(last, new Change("everything", "")));
      } else {
        send(emitter, new Event(last, new Change("hello", "")));
        missed.forEach(event -> send(emitter, event));
      }
      emitters.add(emitter);
    }
    return emitter;
  }

  /** Null where events were lost. */
  private @Nullable List<Event> missedSince(@Nullable String lastEventId) {
    if (lastEventId == null || lastEventId.isBlank()) {
      return List.of();
    }
    String[] parts = lastEventId.split("-");
    if (parts.length != 2 || !parts[0].equals(run) || !parts[1].matches("\\d{1,18}")) {
      return null;
    }
    long seen = Long.parseLong(parts[1]);
    if (!kept.isEmpty() && kept.peekFirst().number() > seen + 1) {
      return null;
    }
    return kept.stream().filter(event -> event.number() > seen).toList();
  }

  private synchronized void publish(Change change) {
    Event event = new Event(++last, change);
    kept.addLast(event);
    if (kept.size() > KEPT) {
      kept.removeFirst();
    }
    emitters.forEach(emitter -> send(emitter, event));
  }

  private void send(SseEmitter emitter, Event event) {
    try {
      emitter.send(
          SseEmitter.event().id(run + "-" + event.number()).name("change").data(event.change()));
    } catch (IOException | IllegalStateException e) {
      emitters.remove(emitter);
    }
  }

  /** Keeps proxies from closing idle connections, and finds browsers that are gone. */
  @Scheduled(fixedRate = 15_000)
  void beat() {
    for (SseEmitter emitter : emitters) {
      try {
        emitter.send(SseEmitter.event().comment("beat"));
      } catch (IOException | IllegalStateException e) {
        emitters.remove(emitter);
      }
    }
  }
}
