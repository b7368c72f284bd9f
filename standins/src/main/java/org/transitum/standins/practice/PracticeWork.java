package org.transitum.standins.practice;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Keeps the practice databases busy: each as its application would, more and less over a quarter of
 * an hour, without growing beyond some ten thousand rows a table.
 */
public final class PracticeWork implements AutoCloseable {
  private static final int MOST_ROWS = 50_000;
  private static final int BREATH_SECONDS = 900;

  /** What one turn does; {@code ?} becomes a random number. */
  private record Task(String database, int everyMillis, List<String> statements) {}

  private static final List<Task> TASKS =
      List.of(
          new Task(
              "customers",
              40,
              List.of(
                  "select greet(1 + ? % 20000)",
                  "update customer set balance_cents = balance_cents + ? % 2000 - 1000 where id = 1 + ? % 20000",
                  "insert into visit (customer_id, note) values (1 + ? % 20000, 'at the counter')")),
          new Task(
              "stock",
              60,
              List.of(
                  "update article set on_hand = greatest(0, on_hand + ? % 21 - 10) where id = 1 + ? % 5000",
                  "select place, sum(on_hand) from article where place = 'Bay ' || ? % 40 group by place")),
          new Task(
              "orders",
              50,
              List.of(
                  "insert into purchase (customer_id, article_id, amount, cents) values (1 + ? % 20000, 1 + ? % 5000, 1 + ? % 9, 100 + ? % 90000)",
                  "select count(*), sum(cents) from purchase where customer_id = 1 + ? % 20000",
                  "select p.id, c.name from purchase p join customer c on c.id = p.customer_id where p.id = 1 + ? % 1000")),
          new Task(
              "invoices",
              200,
              List.of(
                  "insert into invoice (customer_id, cents) values (1 + ? % 20000, 100 + ? % 90000)",
                  "update invoice set paid = true where id = 1 + ? % 2000")),
          new Task(
              "reports",
              2_000,
              List.of(
                  "insert into monthly values (current_date, 'articles', (select sum(on_hand) from article))",
                  "select place, sum(on_hand) from article group by place order by 2 desc")));

  private static final List<String[]> GROWING =
      List.of(
          new String[] {"customers", "visit", "at"},
          new String[] {"stock", "movement", "at"},
          new String[] {"orders", "purchase", "at"},
          new String[] {"invoices", "invoice", "written"});

  private final PracticeServer server;
  private final ScheduledExecutorService workers = Executors.newScheduledThreadPool(3);
  private final List<Connection> connections = new ArrayList<>();
  private final AtomicLong turns = new AtomicLong();
  private final Set<String> complained = ConcurrentHashMap.newKeySet();
  private final Random random = new Random(11);
  private final long began = System.nanoTime();

  private PracticeWork(PracticeServer server) {
    this.server = server;
  }

  public static PracticeWork start(PracticeServer server) throws SQLException {
    PracticeWork work = new PracticeWork(server);
    for (Task task : TASKS) {
      Connection connection = server.work(task.database());
      work.connections.add(connection);
      var unused =
          work.workers.scheduleWithFixedDelay(
              () -> work.turn(task, connection), 0, task.everyMillis(), TimeUnit.MILLISECONDS);
    }
    var unused = work.workers.scheduleWithFixedDelay(work::trim, 60, 60, TimeUnit.SECONDS);
    return work;
  }

  /** How many turns of work were done. */
  public long turns() {
    return turns.get();
  }

  /** Work comes and goes, so that its counters have a shape. */
  private boolean restsNow() {
    double seconds = (System.nanoTime() - began) / 1e9;
    double share = 0.6 + 0.4 * Math.sin(2 * Math.PI * seconds / BREATH_SECONDS);
    return random.nextDouble() > share;
  }

  private void turn(Task task, Connection connection) {
    if (restsNow()) {
      return;
    }
    try (Statement statement = connection.createStatement()) {
      for (String sql : task.statements()) {
        statement.execute(filled(sql));
      }
      turns.incrementAndGet();
    } catch (SQLException e) {
      complain(task.database(), e);
    }
  }

  /** Once a database, as what fails once fails at every turn. */
  private void complain(String database, SQLException e) {
    if (complained.add(database)) {
      System.err.println(database + ": " + e.getMessage());
    }
  }

  private String filled(String sql) {
    StringBuilder text = new StringBuilder();
    for (char c : sql.toCharArray()) {
      if (c == '?') {
        text.append(random.nextInt(1_000_000));
      } else {
        text.append(c);
      }
    }
    return text.toString();
  }

  private void trim() {
    for (String[] growing : GROWING) {
      try (Connection connection = server.work(growing[0]);
          Statement statement = connection.createStatement()) {
        statement.execute(
            "delete from %1$s where ctid in (select ctid from %1$s order by %2$s desc offset %3$d)"
                .formatted(growing[1], growing[2], MOST_ROWS));
      } catch (SQLException e) {
        complain(growing[0], e);
      }
    }
  }

  @Override
  public void close() throws SQLException {
    workers.shutdownNow();
    try {
      var unused = workers.awaitTermination(5, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    for (Connection connection : connections) {
      connection.close();
    }
  }
}
