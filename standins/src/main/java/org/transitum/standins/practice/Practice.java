package org.transitum.standins.practice;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.SQLException;
import java.util.concurrent.CountDownLatch;

/** Starts a practice server, tells how to read it, and keeps it busy until it is stopped. */
public final class Practice {
  private Practice() {}

  /**
   * @param arguments the folder for the server's files
   */
  public static void main(String[] arguments)
      throws IOException, SQLException, InterruptedException {
    Path folder = Path.of(arguments[0]).toAbsolutePath();
    CountDownLatch stopped = new CountDownLatch(1);
    CountDownLatch closed = new CountDownLatch(1);
    Runtime.getRuntime()
        .addShutdownHook(
            new Thread(
                () -> {
                  stopped.countDown();
                  try {
                    closed.await();
                  } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                  }
                }));
    try (PracticeServer server = PracticeServer.start(folder);
        PracticeWork work = PracticeWork.start(server)) {
      Path list = writeList(folder, server.port());
      System.out.printf(
          """

          A PostgreSQL to practise on: %d databases that are tied and busy.

            name       PRACTICE-PG
            host       127.0.0.1
            port       %d
            user       %s
            password   %s   (public, as its rows are made up)

          In Transitum: Inventory, Read, A live server, List another server.
          With the collector: ./transitum collect run %s --once

          Ctrl-C stops it; the next start begins afresh.
          """,
          PracticeServer.DATABASES.size(),
          server.port(),
          PracticeServer.USER,
          PracticeServer.PASSWORD,
          list);
      stopped.await();
    } catch (IOException e) {
      System.err.println(e.getMessage());
      System.exit(1);
    } finally {
      closed.countDown();
    }
  }

  /** A list for the collector, ready to run. */
  private static Path writeList(Path folder, int port) throws IOException {
    Path password = folder.resolve("password");
    Files.writeString(password, PracticeServer.PASSWORD + "\n");
    if (Files.getFileStore(password).supportsFileAttributeView("posix")) {
      Files.setPosixFilePermissions(password, PosixFilePermissions.fromString("rw-------"));
    }
    Path list = folder.resolve("practice.yaml");
    Files.writeString(
        list,
        """
        site: Practice
        folder: collected
        disk_budget: 200 MB
        sampling: {every: 10 s, for: 1 h}
        servers:
          - {instance: PRACTICE-PG, engine: PostgreSQL, host: 127.0.0.1, port: %d, user: %s, password_file: password}
        """
            .formatted(port, PracticeServer.USER));
    return list;
  }
}
