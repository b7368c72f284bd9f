package org.transitum.collector;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.InvalidValue;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

class CollectionListTest {
  @TempDir private Path folder;

  private CollectionList read(String yaml) throws IOException {
    Path file = folder.resolve("list.yaml");
    Files.writeString(file, yaml);
    return CollectionList.read(file);
  }

  private List<FileProblem> problems(String yaml) {
    BadFile bad = catchThrowableOfType(BadFile.class, () -> read(yaml));
    assertThat(bad).isNotNull();
    return bad.problems();
  }

  private static final String SERVER =
      """
      site: Bankside
      folder: kept
      servers:
        - {instance: BANK-PG-01, engine: PostgreSQL, host: db1, user: transitum, password_file: pw}
      """;

  @Test
  void takesWhatIsNotWrittenFromTheDefaults() throws IOException {
    CollectionList list = read(SERVER);
    assertThat(list.folder()).isEqualTo(folder.resolve("kept"));
    assertThat(list.every()).isEqualTo(Duration.ofSeconds(60));
    assertThat(list.duration()).isEqualTo(Duration.ofDays(14));
    assertThat(list.budgetBytes()).isEqualTo(2L << 30);
    assertThat(list.push()).isNull();
    assertThat(list.servers().get(0))
        .satisfies(
            server -> {
              assertThat(server.engine()).isEqualTo(ReadableEngine.POSTGRESQL);
              assertThat(server.port()).isEqualTo(5432);
              assertThat(server.database()).isEqualTo("postgres");
              assertThat(server.tls()).isEqualTo(TlsMode.PREFER);
            });
  }

  @Test
  void namesEverythingThatIsWrong() {
    assertThat(
            problems(
                """
                site: Bankside
                servers:
                  - {instance: a/b, engine: PostgreSQL, host: db1, user: u, password: secret}
                """))
        .extracting(FileProblem::line)
        .anyMatch(line -> line.contains("'folder'"))
        .anyMatch(line -> line.contains("/servers/0/instance"))
        .anyMatch(line -> line.contains("'password'"));
    assertThat(problems(SERVER + "sampling: {every: 2 s}\ndisk_budget: lots\n"))
        .extracting(FileProblem::column)
        .containsExactlyInAnyOrder("sampling/every", "disk_budget");
    assertThat(
            problems(
                SERVER
                    + "  - {instance: bank-pg-01, engine: MariaDB, host: h, user: u, password_env: P}\n"))
        .extracting(FileProblem::sentence)
        .anyMatch(words -> words.contains("listed twice"));
    assertThat(problems("site: ["))
        .extracting(FileProblem::sentence)
        .first()
        .asString()
        .startsWith("Not YAML");
  }

  @Test
  void sendsNoTokenInTheClearToAnotherMachine() throws IOException {
    assertThat(problems(SERVER + "push: {server: 'http://10.1.2.3:8321', token_env: T}\n"))
        .extracting(FileProblem::column)
        .containsExactly("push/server");
    assertThat(read(SERVER + "push: {server: 'http://127.0.0.1:8321', token_env: T}\n").push())
        .isNotNull();
  }

  @Test
  void readsAPasswordOnlyFromAFileThatNobodyElseCanRead() throws IOException {
    Path file = folder.resolve("pw");
    Files.writeString(file, "secret\n");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r--r--"));
    Secret secret = Secret.ofFile(file);
    assertThatThrownBy(secret::read)
        .isInstanceOf(InvalidValue.class)
        .hasMessageContaining("chmod 600");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    assertThat(secret.read()).isEqualTo("secret");
    assertThat(read(SERVER)).asString().doesNotContain("secret");
  }
}
