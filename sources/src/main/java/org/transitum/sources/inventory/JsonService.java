package org.transitum.sources.inventory;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpRequest;
import java.time.Duration;
import java.time.Instant;
import org.transitum.core.InvalidValue;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.http.BoundedHttp;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/**
 * A server of any engine that tells its facts and counters as JSON over HTTP, as
 * docs/formats/reading.md describes.
 */
public final class JsonService {
  private static final Duration PATIENCE = Duration.ofSeconds(60);
  private static final int MOST_BYTES = 64 << 20;
  private static final int LONGEST_REASON = 300;

  private JsonService() {}

  /** See {@link ServerReader#read}; the time is the one that the service tells. */
  static ServerReading read(ServerAddress address, String instance, Instant at) {
    return get(
        address,
        "reading",
        body -> ReadingJson.read(where(address), new ByteArrayInputStream(body), instance));
  }

  /** Makes something of an answer's bytes. */
  public interface Taker<T> {
    /**
     * @throws BadFile when it is not as documented
     */
    T take(byte[] body);
  }

  /**
   * @param what path of what is asked for, such as {@code samples}
   * @throws Unreachable with the reason in words
   */
  public static <T> T get(ServerAddress address, String what, Taker<T> taker) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(uri(address, what)).header("Accept", "application/json");
    if (!address.user().isEmpty()) {
      request.header("Authorization", BoundedHttp.basic(address.user(), address.password()));
    }
    try {
      return taker.take(
          BoundedHttp.send(
              request,
              PATIENCE,
              MOST_BYTES,
              (status, headers, body) ->
                  answer(address, status, headers.firstValue("Content-Type").orElse(""), body)));
    } catch (IOException e) {
      throw new Unreachable(
          "%s did not answer: %s. Check address, network and certificate."
              .formatted(where(address), BoundedHttp.plain(e)),
          e);
    } catch (BadFile e) {
      throw new Unreachable(
          "%s answered, but not as docs/formats/reading.md asks: %s%s"
              .formatted(
                  where(address),
                  e.problems().get(0).line(),
                  e.total() > 1 ? " (and %,d more)".formatted(e.total() - 1) : ""),
          e);
    }
  }

  private static byte[] answer(ServerAddress address, int status, String type, InputStream body)
      throws IOException {
    if (status == 401 || status == 403) {
      throw new Unreachable(
          "%s refuses %s (%d). Check user and password, and what it may read."
              .formatted(where(address), address.user(), status),
          null);
    }
    if (status != 200) {
      String said =
          new String(body.readNBytes(LONGEST_REASON), java.nio.charset.StandardCharsets.UTF_8);
      throw new Unreachable(
          "%s answered %d: %s"
              .formatted(where(address), status, said.isBlank() ? "no reason given" : said.strip()),
          null);
    }
    if (!type.contains("json")) {
      throw new Unreachable(
          "%s answered %s instead of JSON. Is it the address of the service itself?"
              .formatted(where(address), type.isEmpty() ? "nothing told" : type),
          null);
    }
    return body.readAllBytes();
  }

  private static URI uri(ServerAddress address, String what) {
    if (address.tls() != TlsMode.DISABLE && address.tls() != TlsMode.VERIFY) {
      throw new InvalidValue(
          "Over HTTP there is TLS with a verified certificate or none; choose one of the two.");
    }
    String path = address.database().replaceAll("^/+|/+$", "");
    if (!path.matches("[A-Za-z0-9._~/-]*")) {
      throw new InvalidValue(
          "\"%s\" is no path; letters, digits, dots, hyphens and slashes may stand in it."
              .formatted(path));
    }
    return URI.create(
        "%s://%s:%d/%s%s"
            .formatted(
                address.tls() == TlsMode.VERIFY ? "https" : "http",
                address.hostInUrl(),
                address.port(),
                path.isEmpty() ? "" : path + "/",
                what));
  }

  private static String where(ServerAddress address) {
    return "%s:%d".formatted(address.host(), address.port());
  }
}
