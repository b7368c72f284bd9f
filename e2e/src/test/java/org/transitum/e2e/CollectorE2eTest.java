package org.transitum.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer;
import org.transitum.standins.StandIns;

/**
 * From a lead who makes a token to databases that nobody could reach before: with the runnable jar
 * as it is carried to another network.
 */
class CollectorE2eTest {
  private static TestServer server;
  private static Browsers browsers;
  private static StandIns standIns;

  @TempDir private Path folder;

  @BeforeAll
  static void start() throws IOException {
    server = TestServer.start();
    browsers = new Browsers();
    standIns = StandIns.start(StandIns.demo(), Clock.systemUTC(), 100);
  }

  @AfterAll
  static void stop() {
    assertThat(browsers.complaints()).isEmpty();
    browsers.close();
    standIns.close();
    server.close();
  }

  private Path list(String push) throws IOException {
    Path list = folder.resolve("list.yaml");
    Files.writeString(
        list,
        """
        site: Tidewell
        folder: collected
        servers:
          - {instance: TIDE-MS-01, engine: other, host: 127.0.0.1, port: %1$d, database: TIDE-MS-01, user: transitum, password_env: PW, tls: off}
          - {instance: TIDE-DB-01, engine: other, host: 127.0.0.1, port: %1$d, database: TIDE-DB-01, user: transitum, password_env: PW, tls: off}
        %2$s
        """
            .formatted(standIns.port(), push));
    return list;
  }

  /** Runs the jar; returns its exit code. */
  private int collect(Path list, Map<String, String> environment) throws Exception {
    ProcessBuilder builder =
        new ProcessBuilder(
                System.getProperty("java.home") + "/bin/java",
                "-jar",
                Path.of("../collector/target/transitum-collect.jar").toAbsolutePath().toString(),
                "run",
                list.toString(),
                "--once")
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile());
    builder.environment().putAll(environment);
    Process process = builder.start();
    assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
    return process.exitValue();
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  private static Page atTheCollectors() {
    server.as(Role.LEAD);
    Page page = browsers.person("day");
    page.navigate("http://127.0.0.1:" + server.port() + "/inventory");
    page.getByLabel("Login").fill("lead");
    page.getByLabel("Password").fill("open sesame");
    button(page, "Sign in").click();
    page.getByLabel("Stations").waitFor();
    button(page, "Read a file or a server").first().click();
    page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("A collector")).click();
    return page;
  }

  @Test
  void aCollectorPushesWithATokenAndIsCarriedByHandWithoutOne() throws Exception {
    Page page = atTheCollectors();
    page.getByLabel("Site that will hold it").fill("Tidewell");
    button(page, "Make a token").click();
    String token = page.locator(".made code").innerText().strip();
    assertThat(token).hasSizeGreaterThan(40);
    button(page, "I have it").click();
    assertThat(page.getByText(token)).hasCount(0);

    Path pushing =
        list("push: {server: 'http://127.0.0.1:%d', token_env: TOKEN}".formatted(server.port()));
    int exit = collect(pushing, Map.of("PW", StandIns.PASSWORD, "TOKEN", token));
    assertThat(exit).as(Files.readString(folder.resolve("log"))).isEqualTo(1);
    assertThat(Files.readString(folder.resolve("log")))
        .contains("pushed 1 reading and")
        .doesNotContain(token);

    Locator bundle = page.locator("article.bundle").first();
    assertThat(bundle).containsText("1 reading waits");
    assertThat(bundle).containsText("TIDE-DB-01: 127.0.0.1");
    assertThat(bundle)
        .containsText("Counters wait until a reading is accepted that brings TIDE-MS-01");
    page.getByText("Start a collector").click();
    assertThat(Browsers.breaches(page, "collector")).isEmpty();
    bundle.getByText("Accept what is beyond doubt").click();
    assertThat(bundle).containsText("taken");
    assertThat(bundle).containsText("20 samples stored");

    button(page, "Revoke…").click();
    button(page, "Revoke Tidewell").click();
    assertThat(page.getByText("Held by")).hasCount(0);
    assertThat(collect(pushing, Map.of("PW", StandIns.PASSWORD, "TOKEN", token)))
        .as("the token was revoked")
        .isEqualTo(4);

    Path carrying = list("");
    collect(carrying, Map.of("PW", StandIns.PASSWORD));
    Path carried;
    try (Stream<Path> left = Files.list(folder.resolve("collected/outbox"))) {
      carried = left.findFirst().orElseThrow();
    }
    page.getByLabel("Bundle to read").setInputFiles(carried);
    assertThat(page.locator("article.bundle")).hasCount(2);
    assertThat(page.locator("article.bundle").first()).containsText("from lead");
  }
}
