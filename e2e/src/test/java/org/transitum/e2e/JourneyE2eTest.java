package org.transitum.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.Statement;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.transitum.demo.DemoEstate;
import org.transitum.server.TestServer;

/** A lead and an engineer, each in a browser, from an empty server to a database under way. */
@TestMethodOrder(OrderAnnotation.class)
class JourneyE2eTest {
  private static TestServer server;
  private static Browsers browsers;
  private static EmbeddedPostgres postgres;
  private static Page lead;
  private static Page engineer;

  @BeforeAll
  static void start() throws Exception {
    server = TestServer.start();
    browsers = new Browsers();
    postgres = EmbeddedPostgres.builder().setServerConfig("wal_level", "logical").start();
    try (Connection connection = postgres.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement()) {
      statement.execute("create database orders");
      statement.execute("create database stock");
    }
    try (Connection connection = postgres.getDatabase("postgres", "orders").getConnection();
        Statement statement = connection.createStatement()) {
      statement.execute("create table item (id int primary key)");
      statement.execute("create extension postgres_fdw");
      statement.execute(
          "create server stock foreign data wrapper postgres_fdw options (host '127.0.0.1', port '%d', dbname 'stock')"
              .formatted(postgres.getPort()));
    }
    lead = browsers.person("day");
    engineer = browsers.person("night");
  }

  @AfterAll
  static void stop() throws IOException {
    assertThat(browsers.complaints()).isEmpty();
    browsers.close();
    server.close();
    postgres.close();
  }

  private static void open(Page page, String path) {
    page.navigate("http://127.0.0.1:" + server.port() + path);
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  private static void station(Page page, String name) {
    page.getByLabel("Stations")
        .getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(name))
        .click();
  }

  private static void file(Page page, String kind, String name, String content) {
    station(page, "Inventory");
    Locator go = button(page, "Read a file or a server");
    go.click();
    Locator sheet =
        page.getByRole(
            AriaRole.DIALOG, new Page.GetByRoleOptions().setName("Read a file or a server"));
    sheet.getByText(kind, new Locator.GetByTextOptions().setExact(true)).click();
    sheet
        .getByLabel("File to read")
        .setInputFiles(new FilePayload(name, "text/csv", content.getBytes(StandardCharsets.UTF_8)));
  }

  /** A database's line of the inventory, not of a difference that is just closing over it. */
  private static Locator row(Page page, String database) {
    return page.getByRole(
            AriaRole.TABLE, new Page.GetByRoleOptions().setName("Databases").setExact(true))
        .getByRole(AriaRole.ROW)
        .filter(new Locator.FilterOptions().setHasText(database));
  }

  private static void closeSheet(Page page) {
    page.locator(".sheet")
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Close"))
        .click();
    page.locator(".sheet")
        .waitFor(
            new Locator.WaitForOptions()
                .setState(com.microsoft.playwright.options.WaitForSelectorState.DETACHED));
  }

  @Test
  @Order(1)
  void theFirstPersonSetsUpTheServerAndAddsAnEngineer() {
    open(lead, "/");
    lead.getByLabel("Programme, such as").fill("Leave the old hall by June");
    lead.getByLabel("Time zone").fill("Europe/London");
    lead.getByLabel("Your name").fill("Ada Lead");
    lead.getByLabel("Login").fill("ada");
    lead.getByLabel("Password").fill("open sesame");
    button(lead, "Set up as lead").click();
    assertThat(lead.getByText("An empty programme")).isVisible();
    lead.getByLabel("Signed in as Ada Lead").click();
    lead.getByText("People", new Page.GetByTextOptions().setExact(true)).click();
    Locator sheet = lead.getByRole(AriaRole.DIALOG, new Page.GetByRoleOptions().setName("People"));
    sheet.getByLabel("Name").fill("Omar Engineer");
    sheet.getByLabel("Login").fill("omar");
    sheet.getByLabel("First password").fill("open sesame");
    button(lead, "Add this person").click();
    assertThat(sheet.getByText("Omar Engineer")).isVisible();
    closeSheet(lead);

    open(engineer, "/");
    engineer.getByLabel("Login").fill("omar");
    engineer.getByLabel("Password").fill("wrong words");
    button(engineer, "Sign in").click();
    assertThat(engineer.getByText("Login and password do not match.")).isVisible();
    engineer.getByLabel("Password").fill("open sesame");
    button(engineer, "Sign in").click();
    assertThat(engineer.getByText("An empty programme")).isVisible();
  }

  @Test
  @Order(2)
  void aFileIsReadAfterItsMistakesAreNamedAndTheOtherSeesItLive() {
    station(engineer, "Inventory");
    assertThat(engineer.getByText("Nothing in the inventory yet")).isVisible();
    file(
        lead, "Inventory", "databases.csv", "instance,database,size_bytes\nPG-9,ledger,1 parsec\n");
    assertThat(lead.getByText("databases.csv, row 2, column size_bytes")).isVisible();
    lead.getByLabel("File to read")
        .setInputFiles(
            new FilePayload(
                "databases.csv",
                "text/csv",
                "instance,database,size_bytes,criticality,permitted_outage_minutes,owner,disposition\nPG-9,ledger,1099511627776,high,240,Ann,move\n"
                    .getBytes(StandardCharsets.UTF_8)));
    button(lead, "Accept 1 change").click();
    assertThat(row(lead, "ledger")).isVisible();
    assertThat(engineer.getByText("1 of 1 shown, 1.00 TiB")).isVisible();
  }

  @Test
  @Order(3)
  void aLiveServerIsReadWithItsTies() {
    button(lead, "Read a file or a server").click();
    lead.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("A live server")).click();
    lead.getByLabel("Name in the inventory").fill("PG-1");
    lead.getByLabel("Host", new Page.GetByLabelOptions().setExact(true)).fill("127.0.0.1");
    lead.getByLabel("Port", new Page.GetByLabelOptions().setExact(true))
        .fill(String.valueOf(postgres.getPort()));
    lead.getByLabel("User", new Page.GetByLabelOptions().setExact(true)).fill("postgres");
    lead.getByLabel("Password, kept encrypted").fill("none needed");
    button(lead, "List and read it").click();
    assertThat(lead.getByText("pointers to other databases")).isVisible();
    lead.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions()
                .setName(java.util.regex.Pattern.compile("Accept \\d+ changes")))
        .click();
    assertThat(row(lead, "stock")).isVisible();
    sampling("Sample", "every 10 s");
    station(lead, "Dependencies");
    button(lead, "1 to confirm").click();
    assertThat(lead.getByText("foreign server stock without tables")).isVisible();
    button(lead, "Confirm as bound").click();
    assertThat(lead.getByText("1 move groups of two or more")).isVisible();
  }

  /** Presses a button of the listed server and waits until its line says so. */
  private static void sampling(String press, String says) {
    button(lead, "Read a file or a server").click();
    lead.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("A live server")).click();
    if (press.equals("Sample")) {
      lead.getByLabel("Seconds between samples").fill("10");
    }
    lead.locator(".sheet")
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(press).setExact(true))
        .click();
    assertThat(lead.locator(".sheet").getByText(says)).isVisible();
    closeSheet(lead);
  }

  @Test
  @Order(4)
  void countersAndACatalogueGiveAFitThatMovesWithTheSliders() throws IOException {
    StringBuilder csv = new StringBuilder("object,counter,time,value\n");
    for (int i = 0; i < 288 * 10; i++) {
      long at = 1_790_000_100L + i * 300L;
      double load = i % 288 > 250 ? 3.9 : 1.2;
      csv.append("PG-1/orders,cpu_cores,").append(at).append(',').append(load).append('\n');
      csv.append("PG-1/orders,working_set_bytes,").append(at).append(",4294967296\n");
    }
    file(lead, "Counters", "counters.csv", csv.toString());
    assertThat(lead.getByText("5,760 samples of 2 series")).isVisible();
    closeSheet(lead);
    try (InputStream in = DemoEstate.class.getResourceAsStream("/demo/catalogue.json")) {
      file(
          lead,
          "Catalogue",
          "catalogue.json",
          new String(in.readAllBytes(), StandardCharsets.UTF_8));
    }
    assertThat(lead.getByText("Halden Cloud: 30 tiers")).isVisible();
    closeSheet(lead);
    open(lead, "/sizing?of=PG-1/orders&percentile=80");
    assertThat(lead.getByText("is the cheapest that fits")).isVisible();
    assertThat(lead.getByText("1 change tier")).isVisible();
    button(lead, "Reset").click();
    assertThat(lead.getByText("1 change tier")).isHidden();
    assertThat(lead.getByText("CPU unknown: collect cpu_cores").first()).isHidden();
    lead.getByText("PG-9 / ledger").click();
    assertThat(lead.getByText("No counters of this database")).isVisible();
  }

  @Test
  @Order(5)
  void wavesArePlannedAndAGroupIsMovedByHand() {
    file(
        lead,
        "Windows and freezes",
        "windows.csv",
        """
        kind,wave,name,starts_at,ends_at,max_databases,max_gib
        window,W01,Pilot,2099-01-03T20:00Z,2099-01-04T04:00Z,2,4000
        window,W02,Second,2099-01-10T20:00Z,2099-01-11T04:00Z,5,4000
        """);
    assertThat(lead.getByText("2 windows and freezes taken")).isVisible();
    closeSheet(lead);
    station(lead, "Waves");
    lead.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(java.util.regex.Pattern.compile("Plan again.*")))
        .click();
    button(lead, "Accept plan 1").click();
    assertThat(lead.getByText("No wave yet: 0")).isVisible();
    Locator pilot = lead.getByLabel("W01 Pilot");
    Locator second = lead.getByLabel("W02 Second");
    Locator group =
        second
            .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("orders"))
            .or(pilot.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("orders")));
    group.first().click();
    assertThat(lead.getByText("picked up: each wave says what it would cost or break")).isVisible();
    boolean inPilot = pilot.getByText("here now").isVisible();
    (inPilot ? second : pilot).locator(".verdict").click();
    button(lead, "Undo the last move").click();
    assertThat((inPilot ? pilot : second).getByText("orders")).isVisible();
  }

  @Test
  @Order(6)
  void aCrossingIsMovedByOneAndSeenByTheOther() {
    open(lead, "/crossings?subject=PG-1/orders&tab=crossing");
    button(lead, "Mark prepared").click();
    button(lead, "Set up a crossing").click();
    station(engineer, "Crossings");
    assertThat(
            engineer
                .getByRole(AriaRole.ROW)
                .filter(new Locator.FilterOptions().setHasText("X-0001")))
        .containsText("setting up");
    engineer.getByText("PG-1/orders").click();
    engineer.getByLabel("Dossier of PG-1/orders").getByRole(AriaRole.COMBOBOX).first().click();
    engineer
        .getByRole(AriaRole.OPTION)
        .filter(new Locator.FilterOptions().setHasText("Omar Engineer"))
        .click();
    button(engineer, "Start copying").click();
    assertThat(lead.getByLabel("Crossings").first()).containsText("copying");
    engineer.getByLabel("Copied, %").fill("100");
    button(engineer, "Report").click();
    button(engineer, "Start following").click();
    assertThat(lead.getByLabel("Crossings").first()).containsText("following");
    engineer.getByLabel("Behind, seconds").fill("0");
    button(engineer, "Report").click();
    button(engineer, "Mark stalled").click();
    engineer.getByLabel("Reason").fill("the target's disk is full");
    engineer
        .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Mark stalled X-0001"))
        .click();
    assertThat(lead.getByText("the target's disk is full").first()).isVisible();
    assertThat(lead.getByLabel("Stations")).containsText("1 stalled, 1 under way");
  }

  @Test
  @Order(7)
  void theJournalTellsItAllAndTheKeyboardLeadsThere() {
    engineer.keyboard().press("Escape");
    engineer.keyboard().press("/");
    engineer.keyboard().type("orders");
    engineer.keyboard().press("Enter");
    engineer.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Journal")).click();
    assertThat(engineer.getByText("condition: stalled, was running")).isVisible();
    assertThat(engineer.getByText("stage: copying, was setting up")).isVisible();
    engineer.keyboard().press("1");
    assertThat(engineer.getByText("Where the estate stands")).isVisible();
    engineer.keyboard().press("?");
    assertThat(engineer.getByText("go to a station")).isVisible();
  }

  /** Sampling began in the third step; a minute of it makes the first whole bucket. */
  @Test
  @Order(8)
  void whatWasSampledMeanwhileIsThereAndSamplingStops() {
    Locator strip =
        lead.getByRole(AriaRole.IMG, new Page.GetByRoleOptions().setName("connections: covered"))
            .or(
                lead.getByRole(
                    AriaRole.IMG,
                    new Page.GetByRoleOptions()
                        .setName(java.util.regex.Pattern.compile("^connections: .* in part"))));
    for (int i = 0; i < 30 && strip.count() == 0; i++) {
      open(lead, "/inventory?subject=PG-1/orders&tab=demand");
      lead.waitForTimeout(5_000);
    }
    assertThat(strip.first()).isVisible();
    sampling("Stop", "off");
  }
}
