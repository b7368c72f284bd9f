package org.transitum.server.jobs;

import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Service;
import org.transitum.server.jobs.JobMapper.JobRow;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;
import tools.jackson.databind.json.JsonMapper;

/**
 * Runs long work beside the requests: what computes two at a time, what waits for other servers
 * many at a time, so that one that hangs holds up no other. A job that a stopped server left behind
 * is marked failed at the next start; its transaction was never committed.
 */
@Service
public class JobService {
  private static final Logger LOG = LoggerFactory.getLogger(JobService.class);
  private static final int MOST_WAITING = 32;

  private final JobMapper mapper;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final JsonMapper json;
  private final Map<Long, Handle> running = new ConcurrentHashMap<>();
  private final ExecutorService workers = Executors.newFixedThreadPool(2);
  private volatile boolean stopping;
  private final ExecutorService waiters = Executors.newFixedThreadPool(MOST_WAITING);

  JobService(
      JobMapper mapper,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      JsonMapper json) {
    this.mapper = mapper;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.json = json;
    mapper.failRunning(clock.instant());
  }

  public enum State {
    RUNNING,
    DONE,
    FAILED,
    CANCELLED
  }

  /**
   * @param progress what is being done right now, in words with numbers; null when ended
   * @param message how it ended
   * @param problems of a file that was not taken
   * @param resultId of what it made, such as a reading
   */
  public record Job(
      long id,
      String kind,
      String title,
      State state,
      String person,
      Instant startedAt,
      @Nullable Instant endedAt,
      @Nullable String progress,
      @Nullable String message,
      List<FileProblem> problems,
      @Nullable Long resultId) {}

  /** What a finished job says and made. */
  public record Outcome(String message, @Nullable Long resultId) {}

  /** Handed to the work, to tell its progress and to notice a cancel. */
  public interface Progress {
    /** Says what is being done; throws when somebody cancelled. */
    void tell(String words);
  }

  public interface Work {
    Outcome run(Progress progress) throws Exception;
  }

  private record Result(List<FileProblem> problems, @Nullable Long resultId) {}

  private static final class Cancelled extends RuntimeException {
    private static final long serialVersionUID = 1L;
  }

  private static final class Handle {
    volatile boolean cancelled;
    volatile String progress = "waiting";
  }

  /** Starts work that computes. */
  public Job start(String kind, String title, Work work) {
    return start(workers, kind, title, work);
  }

  /** Starts work that mostly waits for another server. */
  public Job startWaiting(String kind, String title, Work work) {
    return start(waiters, kind, title, work);
  }

  private Job start(ExecutorService pool, String kind, String title, Work work) {
    long id = mapper.insert(kind, title, current.login(), clock.instant());
    Handle handle = new Handle();
    running.put(id, handle);
    SecurityContext who = SecurityContextHolder.getContext();
    pool.execute(
        () -> {
          SecurityContextHolder.setContext(who);
          try {
            run(id, handle, work);
          } finally {
            SecurityContextHolder.clearContext();
          }
        });
    live.announce("jobs", Long.toString(id));
    return job(id);
  }

  private void run(long id, Handle handle, Work work) {
    try {
      Outcome outcome =
          work.run(
              words -> {
                handle.progress = words;
                if (handle.cancelled) {
                  throw new Cancelled();
                }
                live.announce("jobs", Long.toString(id));
              });
      end(id, State.DONE, outcome.message(), new Result(List.of(), outcome.resultId()));
    } catch (Cancelled e) {
      end(id, State.CANCELLED, "Cancelled; nothing of it was stored.", NOTHING);
    } catch (BadFile e) {
      String message =
          e.total() == 1
              ? e.problems().get(0).line()
              : "%,d problems; nothing of the file was stored.".formatted(e.total());
      end(id, State.FAILED, message, new Result(e.problems(), null));
    } catch (Exception e) {
      LOG.warn("job {} failed", id, e);
      end(id, State.FAILED, e.getMessage() == null ? e.toString() : e.getMessage(), NOTHING);
    }
  }

  private static final Result NOTHING = new Result(List.of(), null);

  private void end(long id, State state, String message, Result result) {
    String cut = message.length() > 2_000 ? message.substring(0, 2_000) : message;
    mapper.end(id, state.name(), clock.instant(), cut, json.writeValueAsString(result));
    running.remove(id);
    live.announce("jobs", Long.toString(id));
  }

  public void cancel(long id) {
    Handle handle = running.get(id);
    if (handle == null) {
      throw new Refused("Job %d has ended already.".formatted(id));
    }
    handle.cancelled = true;
  }

  public Job job(long id) {
    return mapper
        .find(id)
        .map(this::toJob)
        .orElseThrow(() -> new Missing("There is no job %d.".formatted(id)));
  }

  public List<Job> latest() {
    return mapper.latest().stream().map(this::toJob).toList();
  }

  private Job toJob(JobRow row) {
    Handle handle = running.get(row.id());
    Result result = row.result() == null ? NOTHING : json.readValue(row.result(), Result.class);
    return new Job(
        row.id(),
        row.kind(),
        row.title(),
        State.valueOf(row.state()),
        row.person(),
        row.startedAt(),
        row.endedAt(),
        handle == null ? null : handle.progress,
        row.message(),
        result.problems(),
        result.resultId());
  }

  /** Whether the server is going down, so that what is cut off now is no failure of its own. */
  public boolean stopping() {
    return stopping;
  }

  @PreDestroy
  void stop() {
    stopping = true;
    running.values().forEach(handle -> handle.cancelled = true);
    workers.shutdownNow();
    waiters.shutdownNow();
  }
}
