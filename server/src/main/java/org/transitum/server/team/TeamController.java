package org.transitum.server.team;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.team.Role;
import org.transitum.server.problems.Missing;
import org.transitum.server.team.TeamService.Person;

@RestController
@RequestMapping("/api/v1/team")
class TeamController {
  private final TeamService team;
  private final CurrentPerson current;

  TeamController(TeamService team, CurrentPerson current) {
    this.team = team;
    this.current = current;
  }

  record NewPerson(
      @NotBlank String login,
      @NotBlank String name,
      @NotNull Role role,
      @NotBlank String password) {}

  @GetMapping("/me")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  Person me() {
    return team.people().stream()
        .filter(person -> person.login().equals(current.login()))
        .findFirst()
        .orElseThrow(() -> new Missing("Your account is gone; ask the lead."));
  }

  @GetMapping("/people")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<Person> people() {
    return team.people();
  }

  @PostMapping("/people")
  @AllowedTo(LEAD)
  Person add(@Valid @RequestBody NewPerson person) {
    return team.add(person.login(), person.name(), person.role(), person.password());
  }
}
