package org.transitum.server.inventory;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.server.inventory.SourceServerMapper.ServerRow;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.secrets.SecretBox;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.sources.inventory.ServerReader;

/** The live servers that a lead has listed; nothing else is ever connected to. */
@Service
public class SourceServers {
  private static final int LEAST_SECONDS = 10;
  private static final int MOST_SECONDS = 3_600;

  private final SourceServerMapper mapper;
  private final SecretBox secrets;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final ReadingService readings;

  SourceServers(
      SourceServerMapper mapper,
      SecretBox secrets,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      ReadingService readings) {
    this.mapper = mapper;
    this.secrets = secrets;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.readings = readings;
  }

  /**
   * A listed server as people see it; never with its password.
   *
   * @param samplingSeconds null while it is not sampled
   */
  public record Server(
      String instance,
      ReadableEngine engine,
      String host,
      int port,
      String database,
      String user,
      TlsMode tls,
      @Nullable Integer samplingSeconds,
      @Nullable Instant sampledAt,
      @Nullable String samplingProblem) {}

  public List<Server> all() {
    return mapper.all().stream()
        .map(
            row ->
                new Server(
                    row.instance(),
                    row.engine(),
                    row.host(),
                    row.port(),
                    row.databaseName(),
                    row.login(),
                    row.tls(),
                    row.samplingSeconds(),
                    row.sampledAt(),
                    row.samplingProblem()))
        .toList();
  }

  /**
   * @param password null or empty to keep the stored one
   */
  @Transactional
  public void save(
      String instance,
      ReadableEngine engine,
      String host,
      int port,
      String database,
      String user,
      @Nullable String password,
      TlsMode tls) {
    if (instance.contains("/") || instance.isBlank()) {
      throw new InvalidValue("Give the server a name without a slash, such as HEAD-PG-01.");
    }
    ServerRow before = mapper.find(instance).orElse(null);
    byte[] secret;
    if (password != null && !password.isEmpty()) {
      secret = secrets.seal(password);
    } else if (before != null && before.host().equals(host) && before.login().equals(user)) {
      secret = before.secret();
    } else {
      throw new InvalidValue("Enter the password of %s on %s.".formatted(user, host));
    }
    mapper.save(
        new ServerRow(instance, engine, host, port, database, user, secret, tls, null, null, null));
    journal.write(
        before == null ? "listed server" : "changed server",
        "INSTANCE",
        instance,
        "address",
        before == null ? null : before.host() + ":" + before.port(),
        host + ":" + port,
        "as " + user);
    live.announce("servers", instance);
  }

  /** Reads a listed server; takes as long as the server does. */
  public ReadingService.OpenReading read(String instance) {
    return readings.open(
        ServerReader.of(row(instance).engine()).read(address(instance), instance, clock.instant()));
  }

  private ServerRow row(String instance) {
    return mapper
        .find(instance)
        .orElseThrow(() -> new Missing("No server \"%s\" is listed.".formatted(instance)));
  }

  public ServerAddress address(String instance) {
    ServerRow row = row(instance);
    return new ServerAddress(
        row.host(),
        row.port(),
        row.databaseName(),
        row.login(),
        secrets.open(row.secret()),
        row.tls());
  }

  /**
   * @param seconds between two samples; null stops sampling
   */
  @Transactional
  public void sample(String instance, @Nullable Integer seconds) {
    address(instance);
    if (seconds != null && (seconds < LEAST_SECONDS || seconds > MOST_SECONDS)) {
      throw new InvalidValue(
          "%d s between samples is out of bounds; choose 10 to 3,600 s.".formatted(seconds));
    }
    mapper.sampling(instance, seconds);
    journal.write(
        seconds == null ? "stopped sampling" : "started sampling",
        "INSTANCE",
        instance,
        "sampling",
        null,
        seconds == null ? null : seconds + " s",
        null);
    live.announce("servers", instance);
  }

  /** Notes how the last sample went. */
  @Transactional
  public void sampled(String instance, @Nullable String problem) {
    mapper.sampled(instance, clock.instant(), problem);
    live.announce("servers", instance);
  }
}
