package org.transitum.server.dependencies;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.dependencies.TieKind;
import org.transitum.server.dependencies.TieService.Dependencies;
import org.transitum.server.dependencies.TieService.TieState;
import org.transitum.server.problems.Versions;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/dependencies")
class DependenciesController {
  private final TieService ties;

  DependenciesController(TieService ties) {
    this.ties = ties;
  }

  record StatedTie(
      @NotBlank String from,
      @NotBlank String to,
      @NotNull TieKind kind,
      @DecimalMin("0") @DecimalMax("1000") double weight,
      @NotNull @Size(max = 1000) String words) {}

  record Decision(
      @NotNull TieKind kind,
      @DecimalMin("0") @DecimalMax("1000") double weight,
      @NotNull TieState state) {}

  record ReadTies(int changed) {}

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  Dependencies dependencies() {
    return ties.dependencies();
  }

  /** The body is the file itself. */
  @PostMapping("/imports")
  @AllowedTo({LEAD, ENGINEER})
  ReadTies read(@RequestParam String name, HttpServletRequest request) throws IOException {
    return new ReadTies(ties.read(name, request.getInputStream()));
  }

  @PostMapping("/ties")
  @AllowedTo({LEAD, ENGINEER})
  Dependencies state(@Valid @RequestBody StatedTie tie) {
    ties.state(tie.from(), tie.to(), tie.kind(), tie.weight(), tie.words());
    return ties.dependencies();
  }

  @PutMapping("/ties/{id}")
  @AllowedTo({LEAD, ENGINEER})
  Dependencies decide(
      @PathVariable long id,
      @RequestHeader("If-Match") String ifMatch,
      @Valid @RequestBody Decision decision) {
    ties.decide(id, decision.kind(), decision.weight(), decision.state(), Versions.of(ifMatch));
    return ties.dependencies();
  }
}
