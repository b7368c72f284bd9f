package org.transitum.sources.inventory;

import java.security.cert.CertificateException;
import java.util.Locale;
import java.util.Optional;
import javax.net.ssl.SSLException;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/** Tells a server whose certificate was not accepted from one that was not reached. */
final class Certificates {
  private Certificates() {}

  /** What to do about it, where a certificate is why the connection failed. */
  static Optional<String> refusal(ServerAddress address, Throwable failure) {
    if (address.tls() != TlsMode.VERIFY) {
      return Optional.empty();
    }
    String reason = null;
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      String message = String.valueOf(cause.getMessage());
      if (cause instanceof SSLException
          || cause instanceof CertificateException
          || message.toLowerCase(Locale.ROOT).contains("certificate")) {
        reason = message.split("\\. ", 2)[0];
      }
    }
    return Optional.ofNullable(reason)
        .map(
            words ->
                "%s:%d shows a certificate that is not trusted here: %s. Name the host as the certificate does, and let Java trust its authority (javax.net.ssl.trustStore); or choose a TLS mode that does not verify."
                    .formatted(address.host(), address.port(), words));
  }
}
