package org.transitum.server.secrets;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Encrypts source credentials with AES-256-GCM under a key file beside the database, so that the
 * database alone gives nothing away.
 */
@Component
public class SecretBox {
  private static final int KEY_BYTES = 32;
  private static final int NONCE_BYTES = 12;
  private static final int TAG_BITS = 128;

  private final SecretKeySpec key;
  private final SecureRandom random = new SecureRandom();

  SecretBox(@Value("${transitum.data}") Path data) {
    key = new SecretKeySpec(keyBytes(data.resolve("secret.key")), "AES");
  }

  private byte[] keyBytes(Path file) {
    try {
      if (!Files.exists(file)) {
        byte[] fresh = new byte[KEY_BYTES];
        random.nextBytes(fresh);
        Files.createDirectories(file.getParent());
        Files.createFile(
            file,
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.write(file, fresh, StandardOpenOption.WRITE);
      }
      byte[] bytes = Files.readAllBytes(file);
      if (bytes.length != KEY_BYTES) {
        throw new IllegalStateException(
            file
                + " must hold 32 bytes; restore it from a backup, or remove it and enter the passwords of all source servers again");
      }
      return bytes;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public byte[] seal(String secret) {
    byte[] nonce = new byte[NONCE_BYTES];
    random.nextBytes(nonce);
    byte[] sealed = run(Cipher.ENCRYPT_MODE, nonce, secret.getBytes(StandardCharsets.UTF_8));
    return ByteBuffer.allocate(nonce.length + sealed.length).put(nonce).put(sealed).array();
  }

  public String open(byte[] box) {
    ByteBuffer buffer = ByteBuffer.wrap(box);
    byte[] nonce = new byte[NONCE_BYTES];
    buffer.get(nonce);
    byte[] sealed = new byte[buffer.remaining()];
    buffer.get(sealed);
    return new String(run(Cipher.DECRYPT_MODE, nonce, sealed), StandardCharsets.UTF_8);
  }

  private byte[] run(int mode, byte[] nonce, byte[] input) {
    try {
      Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
      cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
      return cipher.doFinal(input);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(
          "a stored password cannot be decrypted; secret.key is not the one it was encrypted with",
          e);
    }
  }
}
