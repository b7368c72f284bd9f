package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Versions as servers of both kinds write them, and the statement that each still understands. */
class MariaDbVersionTest {

  @ParameterizedTest
  @CsvSource({
    "10.11.6-MariaDB-0+deb12u1, Debian 12, MariaDB, 10.11.6, show slave status",
    "5.5.5-10.6.17-MariaDB-log, MariaDB Server, MariaDB, 10.6.17, show slave status",
    "11.4.2-MariaDB, mariadb.org binary distribution, MariaDB, 11.4.2, show slave status",
    "5.7.44-log, MySQL Community Server (GPL), MySQL, 5.7.44, show slave status",
    "5.5.5, MySQL Community Server (GPL), MySQL, 5.5.5, show slave status",
    "8.0.21, MySQL Community Server - GPL, MySQL, 8.0.21, show slave status",
    "8.0.22, MySQL Community Server - GPL, MySQL, 8.0.22, show replica status",
    "8.0.36-0ubuntu0.22.04.1, (Ubuntu), MySQL, 8.0.36, show replica status",
    "8.4.0, MySQL Community Server - GPL, MySQL, 8.4.0, show replica status",
    "9.1.0-cloud, Some Cloud, MySQL, 9.1.0, show replica status",
    "10.3.39-custom, mariadb built here, MariaDB, 10.3.39, show slave status",
    "future, MySQL, MySQL, future, show slave status"
  })
  void tellsTheServersApart(
      String version, String comment, String engine, String number, String status) {
    MariaDbVersion read = MariaDbVersion.of(version, comment);
    assertThat(read.engine()).isEqualTo(engine);
    assertThat(read.number()).isEqualTo(number);
    assertThat(read.replicaStatus()).isEqualTo(status);
  }
}
