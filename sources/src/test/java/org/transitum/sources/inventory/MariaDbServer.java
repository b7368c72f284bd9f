package org.transitum.sources.inventory;

import java.io.File;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/** Debian's MariaDB on a free port, with records in a folder of its own. */
public final class MariaDbServer implements AutoCloseable {
  private final Path folder;
  private final int port;
  private final Process process;

  private MariaDbServer(Path folder, int port, Process process) {
    this.folder = folder;
    this.port = port;
    this.process = process;
  }

  public static MariaDbServer start(String... settings) throws Exception {
    Path folder = Files.createTempDirectory("transitum-mariadb-");
    boolean root = "root".equals(System.getProperty("user.name"));
    if (root) {
      run("chown", "mysql", folder.toString());
      Files.setPosixFilePermissions(
          folder, java.nio.file.attribute.PosixFilePermissions.fromString("rwxr-xr-x"));
    }
    int port;
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
    Path config = folder.resolve("my.cnf");
    Files.write(
        config,
        List.of(
            "[mysqld]",
            root ? "user=mysql" : "",
            "datadir=" + folder.resolve("data"),
            "socket=" + folder.resolve("sock"),
            "port=" + port,
            "bind-address=127.0.0.1",
            "pid-file=" + folder.resolve("pid"),
            "innodb_buffer_pool_size=64M",
            String.join("\n", settings)));
    run(
        "mariadb-install-db",
        "--defaults-file=" + config,
        "--auth-root-authentication-method=normal",
        "--skip-test-db");
    Process process =
        new ProcessBuilder("mariadbd", "--defaults-file=" + config)
            .redirectErrorStream(true)
            .redirectOutput(new File(folder.toFile(), "log"))
            .start();
    MariaDbServer server = new MariaDbServer(folder, port, process);
    server.await();
    return server;
  }

  private static void run(String... command) throws Exception {
    Process process =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .start();
    if (!process.waitFor(120, TimeUnit.SECONDS) || process.exitValue() != 0) {
      throw new IOException(String.join(" ", command) + " failed");
    }
  }

  private void await() throws Exception {
    SQLException last = null;
    for (int i = 0; i < 150; i++) {
      try (Connection connection = connect("root", "")) {
        return;
      } catch (SQLException e) {
        last = e;
        Thread.sleep(200);
      }
    }
    throw new IOException(Files.readString(folder.resolve("log")), last);
  }

  Connection connect(String user, String password) throws SQLException {
    return DriverManager.getConnection(
        "jdbc:mariadb://127.0.0.1:%d/?user=%s&password=%s&sslMode=disable"
            .formatted(port, user, password));
  }

  public void execute(String... statements) throws SQLException {
    try (Connection connection = connect("root", "");
        Statement statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  public int port() {
    return port;
  }

  public ServerAddress address(String user, String password) {
    return new ServerAddress("127.0.0.1", port, "", user, password, TlsMode.PREFER);
  }

  @Override
  public void close() throws Exception {
    process.destroy();
    process.waitFor(20, TimeUnit.SECONDS);
    run("rm", "-rf", folder.toString());
  }
}
