package org.transitum.sources.counters;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.sources.inventory.MariaDbConnections;
import org.transitum.sources.inventory.ServerAddress;
import org.transitum.sources.inventory.Unreachable;

/**
 * Takes one sample of a live MariaDB or MySQL server's status. It counts work for the instance as a
 * whole only; per schema it tells sizes and connections. The host's processor use stays unknown.
 */
final class MariaDbSampler {
  private static final String STATUS =
      """
      show global status where variable_name in ('Handler_commit', 'Handler_rollback',
        'Innodb_data_reads', 'Innodb_data_writes', 'Innodb_data_read',
        'Innodb_data_written', 'Innodb_os_log_written', 'Innodb_buffer_pool_read_requests',
        'Innodb_buffer_pool_reads', 'Threads_connected')
      """;
  private static final String SIZES =
      """
      select table_schema, sum(coalesce(data_length, 0) + coalesce(index_length, 0)) as bytes
        from information_schema.tables
       where table_schema not in ('mysql', 'information_schema', 'performance_schema', 'sys')
       group by table_schema
      """;
  private static final String CONNECTIONS =
      """
      select s.schema_name, count(p.id) as connections
        from information_schema.schemata s
        left join information_schema.processlist p on p.db = s.schema_name
       where s.schema_name not in ('mysql', 'information_schema', 'performance_schema', 'sys')
       group by s.schema_name
      """;

  private MariaDbSampler() {}

  /** See {@link ServerSampler#sample}. */
  static List<Sample> sample(ServerAddress address, String instance) {
    List<Sample> samples = new ArrayList<>();
    try (Connection connection = MariaDbConnections.open(address);
        Statement statement = connection.createStatement()) {
      server(statement, instance, samples);
      perSchema(statement, SIZES, instance, Counter.SIZE_BYTES, samples);
      perSchema(statement, CONNECTIONS, instance, Counter.CONNECTIONS, samples);
    } catch (SQLException e) {
      throw new Unreachable("%s broke off: %s".formatted(address, e.getMessage()), e);
    }
    return samples;
  }

  private static void server(Statement statement, String instance, List<Sample> samples)
      throws SQLException {
    Map<String, Double> status = new HashMap<>();
    try (ResultSet row = statement.executeQuery(STATUS)) {
      while (row.next()) {
        status.put(row.getString(1), row.getDouble(2));
      }
    }
    add(
        samples,
        instance,
        Counter.TRANSACTIONS_TOTAL,
        status,
        "Handler_commit",
        "Handler_rollback");
    add(samples, instance, Counter.READS_TOTAL, status, "Innodb_data_reads");
    add(samples, instance, Counter.WRITES_TOTAL, status, "Innodb_data_writes");
    add(
        samples,
        instance,
        Counter.IO_BYTES_TOTAL,
        status,
        "Innodb_data_read",
        "Innodb_data_written");
    add(samples, instance, Counter.LOG_BYTES_TOTAL, status, "Innodb_os_log_written");
    add(samples, instance, Counter.CONNECTIONS, status, "Threads_connected");
    Double asked = status.get("Innodb_buffer_pool_read_requests");
    Double fromDisk = status.get("Innodb_buffer_pool_reads");
    if (asked != null && fromDisk != null) {
      samples.add(new Sample(instance, Counter.BLOCKS_HIT_TOTAL, Math.max(0, asked - fromDisk)));
    }
  }

  /** The sum of what is told; nothing where one part is not. */
  private static void add(
      List<Sample> samples,
      String object,
      Counter counter,
      Map<String, Double> status,
      String... names) {
    double sum = 0;
    for (String name : names) {
      Double value = status.get(name);
      if (value == null) {
        return;
      }
      sum += value;
    }
    samples.add(new Sample(object, counter, sum));
  }

  private static void perSchema(
      Statement statement, String sql, String instance, Counter counter, List<Sample> samples)
      throws SQLException {
    try (ResultSet row = statement.executeQuery(sql)) {
      while (row.next()) {
        samples.add(
            new Sample(
                new DatabaseKey(instance, row.getString(1)).toString(), counter, row.getDouble(2)));
      }
    }
  }
}
