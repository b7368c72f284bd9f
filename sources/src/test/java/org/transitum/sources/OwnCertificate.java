package org.transitum.sources;

import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.KeyStore;
import java.util.Base64;
import java.util.concurrent.TimeUnit;

/** A certificate of localhost that only its owner vouches for. */
public final class OwnCertificate {
  private static final String PASSWORD = "changeit";

  private final Path folder;
  private final KeyStore keys;

  private OwnCertificate(Path folder, KeyStore keys) {
    this.folder = folder;
    this.keys = keys;
  }

  public static OwnCertificate in(Path folder) throws Exception {
    Path store = folder.resolve("store");
    new ProcessBuilder(
            System.getProperty("java.home") + "/bin/keytool",
            "-genkeypair",
            "-keystore",
            store.toString(),
            "-storepass",
            PASSWORD,
            "-keyalg",
            "RSA",
            "-dname",
            "CN=localhost",
            "-alias",
            "own")
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
        .start()
        .waitFor(30, TimeUnit.SECONDS);
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(store)) {
      keys.load(in, PASSWORD.toCharArray());
    }
    return new OwnCertificate(folder, keys);
  }

  public KeyStore keys() {
    return keys;
  }

  public char[] password() {
    return PASSWORD.toCharArray();
  }

  public Path certificateFile() throws Exception {
    return pem("CERTIFICATE", keys.getCertificate("own").getEncoded());
  }

  public Path keyFile() throws Exception {
    return pem("PRIVATE KEY", keys.getKey("own", password()).getEncoded());
  }

  private Path pem(String what, byte[] content) throws Exception {
    Path file = folder.resolve(what.toLowerCase(java.util.Locale.ROOT).replace(' ', '-') + ".pem");
    Files.writeString(
        file,
        "-----BEGIN %1$s-----%n%2$s%n-----END %1$s-----%n"
            .formatted(what, Base64.getMimeEncoder().encodeToString(content)));
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    return file;
  }
}
