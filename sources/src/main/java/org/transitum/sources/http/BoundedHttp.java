package org.transitum.sources.http;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/**
 * Exchanges whose size and whole time are bounded: the client's own timeout ends with the answer's
 * head, so that a body which trickles would hold its reader for ever. Redirects are not followed.
 */
public final class BoundedHttp {
  private static final HttpClient CLIENT =
      HttpClient.newBuilder()
          .connectTimeout(Duration.ofSeconds(10))
          .followRedirects(HttpClient.Redirect.NEVER)
          .build();
  private static final ScheduledThreadPoolExecutor WATCH = watch();

  private BoundedHttp() {}

  /** Takes an answer; its body may be read to the end only within the bounds. */
  public interface Answer<T> {
    T take(int status, HttpHeaders headers, InputStream body) throws IOException;
  }

  /** The answer had more bytes than it may. */
  public static final class TooLarge extends IOException {
    private static final long serialVersionUID = 1L;

    TooLarge(long mostBytes) {
      super("the answer is larger than %d MiB".formatted(mostBytes >> 20));
    }
  }

  private static ScheduledThreadPoolExecutor watch() {
    ScheduledThreadPoolExecutor watch =
        new ScheduledThreadPoolExecutor(
            1,
            work -> {
              Thread thread = new Thread(work, "http-watch");
              thread.setDaemon(true);
              return thread;
            });
    watch.setRemoveOnCancelPolicy(true);
    return watch;
  }

  /**
   * @param patience for the whole exchange
   * @throws TooLarge when the body has more than {@code mostBytes}
   * @throws IOException when it fails or takes longer, with the reason in words
   */
  public static <T> T send(
      HttpRequest.Builder request, Duration patience, long mostBytes, Answer<T> answer)
      throws IOException {
    long began = System.nanoTime();
    AtomicBoolean late = new AtomicBoolean();
    HttpResponse<InputStream> response;
    try {
      response = CLIENT.send(request.timeout(patience).build(), BodyHandlers.ofInputStream());
    } catch (java.net.http.HttpConnectTimeoutException e) {
      throw new IOException("no connection within 10 s", e);
    } catch (java.net.http.HttpTimeoutException e) {
      throw tooSlow(patience, e);
    } catch (java.net.ConnectException e) {
      throw new IOException("nothing listens there, or a firewall is between", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    long left = patience.toNanos() - (System.nanoTime() - began);
    ScheduledFuture<?> watch =
        WATCH.schedule(() -> giveUp(response.body(), late), left, TimeUnit.NANOSECONDS);
    Bounded body = new Bounded(response.body(), mostBytes);
    try (body) {
      return answer.take(response.statusCode(), response.headers(), body);
    } catch (IOException | RuntimeException e) {
      // a parser may have wrapped what its stream threw
      if (late.get()) {
        throw tooSlow(patience, e);
      }
      if (body.left < 0) {
        throw new TooLarge(mostBytes);
      }
      throw e;
    } finally {
      watch.cancel(false);
    }
  }

  private static IOException tooSlow(Duration patience, Exception cause) {
    return new IOException("no whole answer within %d s".formatted(patience.toSeconds()), cause);
  }

  private static void giveUp(InputStream body, AtomicBoolean late) {
    late.set(true);
    try {
      body.close();
    } catch (IOException e) {
      // its reader is told by the closed stream
    }
  }

  /** The header value for basic sign-in. */
  public static String basic(String user, @Nullable String password) {
    String pair = user + ":" + (password == null ? "" : password);
    return "Basic " + Base64.getEncoder().encodeToString(pair.getBytes(StandardCharsets.UTF_8));
  }

  /** The reason of a failed exchange for a sentence. */
  public static String plain(IOException e) {
    return e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
  }

  private static final class Bounded extends FilterInputStream {
    private final long most;
    private long left;

    Bounded(InputStream in, long most) {
      super(in);
      this.most = most;
      this.left = most;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] bytes, int from, int length) throws IOException {
      int count = super.read(bytes, from, length);
      left -= Math.max(0, count);
      if (left < 0) {
        throw new TooLarge(most);
      }
      return count;
    }
  }
}
