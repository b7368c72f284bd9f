package org.transitum.sources.inventory;

import java.sql.SQLException;
import java.util.List;

/**
 * Reads the parts of something one by one; a part that fails is named and the rest goes on.
 *
 * @param of key of what is read
 * @param unread takes a sentence for each part that failed
 */
record PartlyRead(String of, String user, List<String> unread) {
  private static final String NO_RIGHT = "42501";

  interface Part {
    void read() throws SQLException;
  }

  void attempt(String what, Part part) {
    try {
      part.read();
    } catch (SQLException e) {
      String remedy =
          NO_RIGHT.equals(e.getSQLState())
              ? "%s may not read them".formatted(user)
              : PostgresConnections.plain(e);
      unread.add("%s: %s not readable: %s.".formatted(of, what, remedy));
    }
  }
}
