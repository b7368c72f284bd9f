package org.transitum.sources.team;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.transitum.core.team.Role;
import org.transitum.sources.files.CsvTable;
import org.transitum.sources.files.CsvTable.Row;
import org.transitum.sources.files.Problems;

/** Reads people, the format of docs/formats/team.md. */
public final class PeopleCsv {

  /**
   * @param password the first password in clear; only its hash is kept
   */
  public record PersonRow(String login, String name, Role role, String password) {}

  private PeopleCsv() {}

  /**
   * @throws org.transitum.sources.files.BadFile with everything that is wrong
   */
  public static List<PersonRow> read(String file, InputStream content) {
    CsvTable table = CsvTable.read(file, content);
    Set<String> columns = Set.of("login", "name", "role", "password");
    table.requireColumns(columns, columns);
    Problems problems = new Problems(file);
    Set<String> logins = new HashSet<>();
    List<PersonRow> people = new ArrayList<>();
    for (Row row : table.rows()) {
      if (!logins.add(row.text("login"))) {
        problems.add(row.number(), "login", "This login stands in the file twice.");
        continue;
      }
      try {
        Role role = Role.valueOf(row.text("role").toUpperCase(Locale.ROOT));
        people.add(new PersonRow(row.text("login"), row.text("name"), role, row.text("password")));
      } catch (IllegalArgumentException e) {
        problems.add(
            row.number(),
            "role",
            "\"%s\" is not one of lead, engineer, owner, observer.".formatted(row.text("role")));
      }
    }
    problems.throwIfAny();
    return people;
  }
}
