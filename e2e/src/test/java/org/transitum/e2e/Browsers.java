package org.transitum.e2e;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Debian's Chromium, driven with the machine's own Node.js. */
final class Browsers implements AutoCloseable {
  private final Playwright playwright;
  private final Browser browser;
  private final List<String> complaints = new ArrayList<>();

  Browsers() {
    PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
    playwright =
        Playwright.create(
            new Playwright.CreateOptions()
                .setEnv(
                    Map.of(
                        "PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD",
                        "1",
                        "PLAYWRIGHT_NODEJS_PATH",
                        which("node"))));
    browser =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(Path.of(which("chromium")))
                    .setArgs(
                        List.of(
                            "--no-sandbox",
                            "--disable-gpu",
                            "--disable-quic",
                            "--no-first-run",
                            "--disable-background-networking",
                            "--disable-component-update",
                            "--disable-sync")));
  }

  /** A page of a person of their own, at the design size. */
  Page person(String theme) {
    BrowserContext context =
        browser.newContext(
            new Browser.NewContextOptions()
                .setViewportSize(1280, 800)
                .setReducedMotion(com.microsoft.playwright.options.ReducedMotion.REDUCE));
    context.addInitScript("localStorage.setItem('transitum-theme', '" + theme + "')");
    Page page = context.newPage();
    page.setDefaultTimeout(15_000);
    page.onPageError(complaints::add);
    page.onConsoleMessage(
        message -> {
          if (message.type().equals("error") && !message.text().contains("status of 4")) {
            complaints.add(message.text());
          }
        });
    return page;
  }

  /**
   * What of a page is against WCAG 2.2 AA.
   *
   * @param name of what it shows, for the words
   */
  static List<String> breaches(Page page, String name) {
    List<String> breaches = new ArrayList<>();
    new AxeBuilder(page)
        .withTags(List.of("wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"))
        .analyze()
        .getViolations()
        .forEach(
            rule ->
                rule.getNodes()
                    .forEach(
                        node -> breaches.add(name + ", " + rule.getId() + ": " + node.getHtml())));
    return breaches;
  }

  /** Errors that pages met; refused requests, which tests provoke, left out. */
  List<String> complaints() {
    return complaints;
  }

  private static String which(String program) {
    try {
      Process process = new ProcessBuilder("which", program).start();
      try (BufferedReader lines =
          new BufferedReader(
              new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
        String found = lines.readLine();
        if (found == null) {
          throw new IllegalStateException(program + " is not installed; run ./transitum test");
        }
        return found;
      }
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  @Override
  public void close() {
    browser.close();
    playwright.close();
  }
}
