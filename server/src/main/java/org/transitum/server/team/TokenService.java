package org.transitum.server.team;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.TokenMapper.TokenRow;

/**
 * Tokens of collectors: random, shown once, kept as a hash, good for one purpose until revoked. A
 * plain hash is enough, as what is hashed has 256 bits that nobody chose.
 */
@Service
public class TokenService {
  private static final int RANDOM_BYTES = 32;
  private static final Duration USE_NOTED = Duration.ofMinutes(1);

  private final TokenMapper mapper;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final SecureRandom random = new SecureRandom();

  TokenService(
      TokenMapper mapper,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current) {
    this.mapper = mapper;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
  }

  /** A token as people see it; what it is made of is never shown again. */
  public record Token(
      long id,
      String name,
      TokenPurpose purpose,
      String createdBy,
      Instant createdAt,
      @Nullable Instant lastUsedAt) {}

  /**
   * A token just made.
   *
   * @param secret shown this once
   */
  public record NewToken(long id, String name, String secret) {}

  public List<Token> valid() {
    return mapper.valid().stream()
        .map(
            row ->
                new Token(
                    row.id(),
                    row.name(),
                    row.purpose(),
                    row.createdBy(),
                    row.createdAt(),
                    row.lastUsedAt()))
        .toList();
  }

  /**
   * @param name of what will hold it, such as the collector's site; no two tokens share one, as the
   *     journal tells by it who did what
   */
  @Transactional
  public NewToken make(String name, TokenPurpose purpose) {
    String plain = name.strip();
    if (plain.isEmpty()) {
      throw new InvalidValue("Name what will hold the token, such as the collector's site.");
    }
    if (mapper.named(plain) > 0) {
      throw new Refused("There is or was a token \"%s\"; choose another name.".formatted(plain));
    }
    byte[] bytes = new byte[RANDOM_BYTES];
    random.nextBytes(bytes);
    String secret = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    long id = mapper.insert(plain, purpose, hash(secret), current.login(), clock.instant());
    journal.write("made token", "TOKEN", plain, null, null, null, null);
    live.announce("tokens", plain);
    return new NewToken(id, plain, secret);
  }

  @Transactional
  public void revoke(long id) {
    TokenRow row =
        mapper.byId(id).orElseThrow(() -> new Missing("There is no token %d.".formatted(id)));
    if (mapper.revoke(id, clock.instant()) == 0) {
      throw new Refused("The token \"%s\" was revoked already.".formatted(row.name()));
    }
    journal.write("revoked token", "TOKEN", row.name(), null, null, null, null);
    live.announce("tokens", row.name());
  }

  /** The valid token behind a secret, with its use noted. */
  @Transactional
  public Optional<Token> use(String secret) {
    Optional<TokenRow> found = mapper.find(hash(secret));
    Instant now = clock.instant();
    found
        .filter(row -> row.lastUsedAt() == null || row.lastUsedAt().plus(USE_NOTED).isBefore(now))
        .ifPresent(
            row -> {
              mapper.used(row.id(), now);
              live.announce("tokens", row.name());
            });
    return found.map(
        row ->
            new Token(row.id(), row.name(), row.purpose(), row.createdBy(), row.createdAt(), now));
  }

  private static String hash(String secret) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
