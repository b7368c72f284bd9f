package org.transitum.sources.http;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpHandler;
import com.sun.net.httpserver.HttpServer;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.sources.OwnCertificate;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.sources.inventory.ServerReader;
import org.transitum.sources.inventory.Unreachable;

/** Servers that do not end, or are not who they should be. */
class BoundedHttpTest {
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private HttpServer server;

  @AfterEach
  void stop() {
    workers.shutdownNow();
    server.stop(0);
  }

  private URI serve(HttpHandler handler) throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext("/", handler);
    server.setExecutor(workers);
    server.start();
    return URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/");
  }

  private static byte[] get(URI uri, Duration patience, long most) throws IOException {
    return BoundedHttp.send(
        HttpRequest.newBuilder(uri),
        patience,
        most,
        (status, headers, body) -> body.readAllBytes());
  }

  /** Its head comes at once, then a byte now and then, so that nothing ever stands still. */
  @Test
  @Timeout(value = 30, unit = TimeUnit.SECONDS)
  void anAnswerThatTricklesIsGivenUp() throws IOException {
    URI uri =
        serve(
            exchange -> {
              exchange.sendResponseHeaders(200, 0);
              try (OutputStream out = exchange.getResponseBody()) {
                while (true) {
                  out.write(' ');
                  out.flush();
                  Thread.sleep(50);
                }
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
            });
    assertThatThrownBy(() -> get(uri, Duration.ofSeconds(1), 1 << 20))
        .isInstanceOf(IOException.class)
        .hasMessageContaining("no whole answer within 1 s");
  }

  @Test
  void anAnswerBeyondItsBoundIsGivenUp() throws IOException {
    URI uri =
        serve(
            exchange -> {
              exchange.sendResponseHeaders(200, 0);
              try (OutputStream out = exchange.getResponseBody()) {
                out.write(new byte[3 << 20]);
              }
            });
    assertThatThrownBy(() -> get(uri, Duration.ofSeconds(20), 1 << 20))
        .isInstanceOf(BoundedHttp.TooLarge.class);
  }

  @Test
  void aRedirectIsNotFollowed() throws IOException {
    URI uri =
        serve(
            exchange -> {
              exchange.getResponseHeaders().set("Location", "http://127.0.0.1:1/secrets");
              exchange.sendResponseHeaders(302, -1);
              exchange.close();
            });
    org.assertj.core.api.Assertions.assertThat(get(uri, Duration.ofSeconds(20), 1 << 20)).isEmpty();
  }

  @Test
  void aServerWhoseCertificateNobodyVouchesForIsRefused(@TempDir Path folder) throws Exception {
    OwnCertificate certificate = OwnCertificate.in(folder);
    HttpsServer https =
        HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    https.setHttpsConfigurator(new HttpsConfigurator(context(certificate)));
    server = https;
    server.start();
    ServerAddress address =
        new ServerAddress("localhost", https.getAddress().getPort(), "", "u", "p", TlsMode.VERIFY);
    assertThatThrownBy(
            () -> ServerReader.of(ReadableEngine.OTHER).read(address, "X-1", Instant.EPOCH))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("certificat");
  }

  private static SSLContext context(OwnCertificate certificate) throws Exception {
    KeyManagerFactory managers =
        KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    managers.init(certificate.keys(), certificate.password());
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    return context;
  }
}
