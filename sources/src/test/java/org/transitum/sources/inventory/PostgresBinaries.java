package org.transitum.sources.inventory;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.File;
import java.io.IOException;
import java.net.URL;

/** Starts real PostgreSQL servers of several majors, whose binaries the build copied aside. */
public final class PostgresBinaries {
  private PostgresBinaries() {}

  /**
   * @param major such as {@code 18}
   */
  public static EmbeddedPostgres start(String major) throws IOException {
    return EmbeddedPostgres.builder()
        .setServerConfig("wal_level", "logical")
        .setServerConfig("password_encryption", "scram-sha-256")
        .setPgBinaryResolver(
            (system, hardware) ->
                new URL(
                        "jar:"
                            + new File("target/binaries/postgres-" + major + ".jar").toURI()
                            + "!/postgres-linux-x86_64.txz")
                    .openStream())
        .setOverrideWorkingDirectory(new File("target/postgres-" + major).getAbsoluteFile())
        .start();
  }
}
