package org.transitum.e2e;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.WaitUntilState;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;

/**
 * How the inventory feels with 10,000 databases; run by {@code ./transitum bench view}, never with
 * the tests. Times are the page's own, from an input event until the next painted frame.
 */
class LargeEstateBench {
  private static final int DATABASES = 10_000;
  private static final int ROUNDS = 7;

  @Test
  void tenThousandDatabases() {
    try (TestServer server = TestServer.start();
        Browsers browsers = new Browsers()) {
      Client lead = server.as(Role.LEAD);
      long start = System.nanoTime();
      Answer read = lead.file("/api/v1/inventory/readings", "large.csv", estate());
      tell("read %,d rows and compare", DATABASES, start);
      long id = read.body().path("reading").path("id").asLong();
      start = System.nanoTime();
      lead.post("/api/v1/inventory/readings/" + id + "/accept", Map.of());
      tell("accept them", 0, start);
      start = System.nanoTime();
      int bytes = lead.get("/api/v1/inventory/table?kind=DATABASE").response().body().length();
      tell("table as JSON, %,d KiB uncompressed", bytes / 1024, start);
      for (String path :
          new String[] {"crossings/places", "overview/left", "counters/glances", "dependencies"}) {
        start = System.nanoTime();
        lead.get("/api/v1/" + path);
        tell(path, 0, start);
        start = System.nanoTime();
        lead.get("/api/v1/" + path);
        tell(path + " again", 0, start);
      }
      measure(server, browsers.person("day"));
    }
  }

  private static void measure(TestServer server, Page page) {
    page.navigate("http://127.0.0.1:" + server.port() + "/");
    page.getByLabel("Login").fill("lead");
    page.getByLabel("Password").fill("open sesame");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign in")).click();
    page.getByLabel("Stations").waitFor();
    firstViews(server, page);
    page.evaluate(
        """
        () => {
          window.timed = (act) => new Promise((done) => {
            const start = performance.now();
            act();
            requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
          });
        }
        """);
    times(page, "sort by size", timed("document.querySelectorAll('button.sort')[1].click()"));
    times(page, "sort by owner", timed("document.querySelectorAll('button.sort')[4].click()"));
    times(
        page,
        "find in all facts, from the key press, 80 ms of waiting for more keys included",
        """
        return new Promise((done) => {
          const box = document.querySelector('input.find');
          const foot = document.querySelector('.foot .total');
          const start = performance.now();
          new MutationObserver((_, watcher) => {
            watcher.disconnect();
            requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
          }).observe(foot, { characterData: true, subtree: true, childList: true });
          box.value = box.value === 'owner-7' ? 'high' : 'owner-7';
          box.dispatchEvent(new Event('input'));
        });
        """);
    times(
        page,
        "scroll a third of the way",
        timed(
            "const box = document.querySelector('.table-box'); box.scrollTop = (box.scrollTop + box.scrollHeight / 3) % box.scrollHeight"));
  }

  /** The page loaded anew, from the address until the rows are counted. */
  private static void firstViews(TestServer server, Page page) {
    long[] took = new long[ROUNDS];
    for (int i = 0; i < ROUNDS; i++) {
      long start = System.nanoTime();
      page.navigate(
          "http://127.0.0.1:" + server.port() + "/inventory",
          new Page.NavigateOptions().setWaitUntil(WaitUntilState.COMMIT));
      page.getByText("10,000 of 10,000 shown").or(page.getByText("10000 of 10000 shown")).waitFor();
      took[i] = (System.nanoTime() - start) / 1_000_000;
    }
    long first = took[0];
    Arrays.sort(took);
    System.out.printf(
        Locale.ROOT,
        "first view, page loaded anew: the first time %d ms, median of %d %d ms%n",
        first,
        ROUNDS,
        took[ROUNDS / 2]);
  }

  private static String timed(String act) {
    return "return timed(() => { " + act + " })";
  }

  private static void times(Page page, String what, String act) {
    double most = 0;
    double sum = 0;
    for (int i = 0; i < ROUNDS; i++) {
      double took = ((Number) page.evaluate("() => { " + act + " }")).doubleValue();
      page.waitForTimeout(400);
      most = Math.max(most, took);
      sum += took;
    }
    System.out.printf(Locale.ROOT, "%s: mean %.0f ms, longest %.0f ms%n", what, sum / ROUNDS, most);
  }

  private static void tell(String what, int number, long start) {
    System.out.printf(
        Locale.ROOT,
        what.contains("%") ? what.formatted(number) + ": %d ms%n" : what + ": %d ms%n",
        (System.nanoTime() - start) / 1_000_000);
  }

  private static String estate() {
    SplittableRandom random = new SplittableRandom(5);
    StringBuilder csv =
        new StringBuilder(
            "instance,host,engine,version,database,size_bytes,tables,views,routines,triggers,encoding,collation,environment,criticality,permitted_outage_minutes,disposition,owner,application,note\n");
    String[] engines = {"PostgreSQL", "MariaDB", "Oracle", "SQL Server"};
    String[] levels = {"critical", "high", "medium", "low"};
    for (int i = 0; i < DATABASES; i++) {
      int instance = i / 8;
      csv.append(
          "I-%04d,h%d.example,%s,%d.%d,db_%05d,%d,%d,%d,%d,%d,UTF8,en_GB,production,%s,%d,move,owner-%d,App %d,note %d\n"
              .formatted(
                  instance,
                  instance / 2,
                  engines[instance % 4],
                  10 + instance % 8,
                  instance % 20,
                  i,
                  random.nextLong(1L << 40),
                  random.nextInt(900),
                  random.nextInt(90),
                  random.nextInt(200),
                  random.nextInt(50),
                  levels[random.nextInt(4)],
                  30 * (1 + random.nextInt(30)),
                  random.nextInt(60),
                  random.nextInt(300),
                  i));
    }
    return csv.toString();
  }
}
