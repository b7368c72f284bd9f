package org.transitum.server.secrets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SecretBoxTest {
  @TempDir Path data;

  @Test
  void opensWhatItSealedAndNeverSealsAlike() {
    SecretBox box = new SecretBox(data);
    byte[] one = box.seal("pass wörd");
    byte[] other = box.seal("pass wörd");
    assertThat(one).isNotEqualTo(other);
    assertThat(box.open(one)).isEqualTo("pass wörd");
    assertThat(new SecretBox(data).open(other)).as("after a restart").isEqualTo("pass wörd");
    assertThat(box.open(box.seal(""))).isEmpty();
  }

  @Test
  void theKeyIsReadableByItsOwnerOnly() throws Exception {
    new SecretBox(data);
    assertThat(
            PosixFilePermissions.toString(
                Files.getPosixFilePermissions(data.resolve("secret.key"))))
        .isEqualTo("rw-------");
  }

  @Test
  void anAlteredByteOrAnotherKeyIsNoticed() throws Exception {
    SecretBox box = new SecretBox(data);
    byte[] sealed = box.seal("word");
    sealed[sealed.length - 1] ^= 1;
    assertThatThrownBy(() -> box.open(sealed)).hasMessageContaining("cannot be decrypted");
    Files.write(data.resolve("secret.key"), new byte[] {1, 2, 3});
    assertThatThrownBy(() -> new SecretBox(data)).hasMessageContaining("restore it from a backup");
  }
}
