package org.transitum.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.transitum.server.TestServer;

/** The views as the demo shows them, for each kind of person and in both themes. */
class DemoViewsTest {
  private static final Map<String, String> VIEWS =
      new TreeMap<>(
          Map.of(
              "overview", "/overview",
              "inventory", "/inventory?subject=HEAD-PG-03/telemetry&lens=contradicted",
              "instances", "/inventory?show=instance&subject=HEAD-MY-01&kind=instance&tab=members",
              "sizing", "/sizing?of=TIDE-MS-01/ledger",
              "dependencies", "/dependencies",
              "waves", "/waves",
              "crossings", "/crossings?subject=FIELD-MY-02/dispatch&tab=crossing"));

  private static TestServer server;
  private static Browsers browsers;

  @BeforeAll
  static void start() {
    server = TestServer.demo();
    browsers = new Browsers();
  }

  @AfterAll
  static void stop() {
    assertThat(browsers.complaints()).isEmpty();
    browsers.close();
    server.close();
  }

  private static Page signIn(String login, String password, String theme) {
    Page page = browsers.person(theme);
    page.navigate("http://127.0.0.1:" + server.port() + "/");
    page.getByLabel("Login").fill(login);
    page.getByLabel("Password").fill(password);
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign in")).click();
    assertThat(page.getByLabel("Stations")).isVisible();
    return page;
  }

  private static void open(Page page, String path) {
    page.navigate("http://127.0.0.1:" + server.port() + path);
    assertThat(page.getByLabel("Stations")).containsText("under way");
    page.waitForLoadState();
    page.waitForTimeout(900);
  }

  @ParameterizedTest
  @ValueSource(strings = {"day", "night"})
  void everyViewIsAccessibleAndScrollsNoWhole(String theme) {
    Page page = signIn("ines", "headworks", theme);
    List<String> breaches = new ArrayList<>();
    VIEWS.forEach(
        (name, path) -> {
          open(page, path);
          if (!(Boolean) page.evaluate("document.documentElement.scrollHeight <= innerHeight")) {
            breaches.add(name + " scrolls as a whole");
          }
          breaches.addAll(Browsers.breaches(page, name));
        });
    assertThat(breaches).isEmpty();
    page.context().close();
  }

  @Test
  void anObserverSeesAllAndMayChangeNothing() {
    Page page = signIn("gwen", "estuarymouth", "day");
    open(page, "/crossings?subject=FIELD-MY-02/dispatch&tab=crossing");
    assertThat(page.getByText("table job_photo has no key").first()).isVisible();
    assertThat(page.getByText("Try again")).isHidden();
    open(page, "/inventory");
    assertThat(page.getByText("Read a file or a server")).isHidden();
    open(page, "/waves");
    assertThat(page.getByText("Plan again")).isHidden();
    page.context().close();
  }

  @Test
  void thePastIsReplayedFromTheJournal() {
    Page page = signIn("noor", "reservoir", "day");
    open(page, "/overview");
    Locator settled = page.locator("table.sr td", new Page.LocatorOptions().setHasText("settled"));
    assertThat(settled.count()).isGreaterThan(8);
    page.getByLabel("Time that the picture shows").fill("3");
    assertThat(page.getByText("Where the estate stood")).isVisible();
    assertThat(settled).hasCount(0);
    page.context().close();
  }

  /**
   * Takes docs/screenshots anew: {@code mvn -pl e2e -Dtest=DemoViewsTest -Dscreenshots=true test}.
   */
  @Test
  @EnabledIfSystemProperty(named = "screenshots", matches = "true")
  void takeScreenshots() {
    Page day = signIn("ines", "headworks", "day");
    VIEWS.forEach((name, path) -> shoot(day, name, path));
    Page night = signIn("ines", "headworks", "night");
    shoot(night, "overview-night", "/overview");
  }

  private static void shoot(Page page, String name, String path) {
    open(page, path);
    if (name.equals("inventory")) {
      page.getByLabel("Select all that are shown").click();
      page.waitForTimeout(300);
    }
    if (name.equals("waves")) {
      page.getByRole(
              AriaRole.BUTTON, new Page.GetByRoleOptions().setName("reporting").setExact(true))
          .first()
          .click();
      page.waitForTimeout(600);
    }
    page.mouse().move(0, 0);
    page.screenshot(
        new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots/" + name + ".png")));
  }
}
