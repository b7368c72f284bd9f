package org.transitum.server.team;

import java.util.List;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.team.Role;
import org.transitum.server.journal.JournalService;
import org.transitum.server.problems.Refused;
import org.transitum.server.team.PersonMapper.PersonRow;

/** Who belongs to the programme. */
@Service
public class TeamService {
  private static final int SHORTEST_PASSWORD = 8;
  private static final int LONGEST_PASSWORD_BYTES = 72;

  private final PersonMapper mapper;
  private final JournalService journal;
  private final PasswordEncoder encoder = new BCryptPasswordEncoder(10);

  TeamService(PersonMapper mapper, JournalService journal) {
    this.mapper = mapper;
    this.journal = journal;
  }

  /** A person as others may see them. */
  public record Person(String login, String name, Role role) {}

  public boolean isEmpty() {
    return mapper.count() == 0;
  }

  public List<Person> people() {
    return mapper.all().stream()
        .map(row -> new Person(row.login(), row.name(), row.role()))
        .toList();
  }

  public boolean isPerson(String login) {
    return mapper.find(login).isPresent();
  }

  @Transactional
  public Person add(String login, String name, Role role, String password) {
    if (!login.matches("[a-z0-9][a-z0-9._-]{1,59}")) {
      throw new InvalidValue(
          "\"%s\" is no login; write 2 to 60 small letters, digits, dots or dashes."
              .formatted(login));
    }
    if (name.isBlank() || name.length() > 120) {
      throw new InvalidValue("Give the person's name, at most 120 characters.");
    }
    if (password.length() < SHORTEST_PASSWORD
        || password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length
            > LONGEST_PASSWORD_BYTES) {
      throw new InvalidValue("A password needs 8 to 72 characters.");
    }
    if (mapper.find(login).isPresent()) {
      throw new Refused("The login \"%s\" is taken.".formatted(login));
    }
    mapper.insert(new PersonRow(login, name.strip(), role, encoder.encode(password)));
    journal.write("added", "PERSON", login, "role", null, role.name(), name);
    return new Person(login, name, role);
  }

  /** The person whose login and password these are; takes equally long for an unknown login. */
  @org.jspecify.annotations.Nullable
  Person verify(String login, String password) {
    PersonRow row = mapper.find(login).orElse(null);
    String hash = row == null ? UNKNOWN_HASH : row.passwordHash();
    boolean right = encoder.matches(password, hash);
    return right && row != null ? new Person(row.login(), row.name(), row.role()) : null;
  }

  private static final String UNKNOWN_HASH = new BCryptPasswordEncoder(10).encode("nobody");
}
