package org.transitum.sources.counters;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.sources.inventory.PostgresConnections;
import org.transitum.sources.inventory.ServerAddress;
import org.transitum.sources.inventory.Unreachable;

/**
 * Takes one sample of a live PostgreSQL server's statistics views. The server cannot tell its
 * host's processor use, so CPU stays unknown here.
 */
final class PostgresSampler {
  private static final String PER_DATABASE =
      """
      select datname, xact_commit + xact_rollback as transactions, blks_read, blks_hit, temp_bytes,
             numbackends,
             case when has_database_privilege(datname, 'connect')
                    or pg_has_role('pg_read_all_stats', 'usage')
                  then pg_database_size(datname) end as size_bytes
        from pg_stat_database
       where datname is not null and datname not in ('template0', 'template1')
      """;
  private static final String LOG_POSITION =
      """
      select case when pg_is_in_recovery() then null
                  else pg_wal_lsn_diff(pg_current_wal_lsn(), '0/0') end
      """;

  private PostgresSampler() {}

  /** See {@link ServerSampler#sample}. */
  static List<Sample> sample(ServerAddress address, String instance) {
    List<Sample> samples = new ArrayList<>();
    try (Connection connection = PostgresConnections.open(address)) {
      databases(connection, instance, samples);
      log(connection, instance, samples);
    } catch (SQLException e) {
      throw new Unreachable("%s broke off: %s".formatted(address, e.getMessage()), e);
    }
    return samples;
  }

  private static void databases(Connection connection, String instance, List<Sample> samples)
      throws SQLException {
    double connections = 0;
    try (PreparedStatement statement = connection.prepareStatement(PER_DATABASE);
        ResultSet row = statement.executeQuery()) {
      while (row.next()) {
        String key = new DatabaseKey(instance, row.getString("datname")).toString();
        add(samples, key, Counter.TRANSACTIONS_TOTAL, row, "transactions");
        add(samples, key, Counter.READS_TOTAL, row, "blks_read");
        add(samples, key, Counter.BLOCKS_HIT_TOTAL, row, "blks_hit");
        add(samples, key, Counter.TEMP_BYTES_TOTAL, row, "temp_bytes");
        add(samples, key, Counter.CONNECTIONS, row, "numbackends");
        add(samples, key, Counter.SIZE_BYTES, row, "size_bytes");
        connections += row.getDouble("numbackends");
      }
    }
    samples.add(new Sample(instance, Counter.CONNECTIONS, connections));
  }

  private static void log(Connection connection, String instance, List<Sample> samples)
      throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(LOG_POSITION);
        ResultSet row = statement.executeQuery()) {
      if (row.next()) {
        add(samples, instance, Counter.LOG_BYTES_TOTAL, row, 1);
      }
    }
  }

  private static void add(
      List<Sample> samples, String key, Counter counter, ResultSet row, String column)
      throws SQLException {
    add(samples, key, counter, row, row.findColumn(column));
  }

  private static void add(
      List<Sample> samples, String key, Counter counter, ResultSet row, int column)
      throws SQLException {
    double value = row.getDouble(column);
    if (!row.wasNull()) {
      samples.add(new Sample(key, counter, value));
    }
  }
}
