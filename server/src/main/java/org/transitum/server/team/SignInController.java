package org.transitum.server.team;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.ErrorResponseException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.team.Role;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeService;
import org.transitum.server.team.TeamService.Person;

/** What a browser may ask before anybody signed in. */
@RestController
class SignInController {
  private static final int MOST_FAILURES = 8;

  private final TeamService team;
  private final ProgrammeService programme;
  private final SecurityContextRepository contexts = new HttpSessionSecurityContextRepository();
  private final Cache<String, AtomicInteger> failures =
      Caffeine.newBuilder().maximumSize(10_000).expireAfterWrite(Duration.ofMinutes(10)).build();

  SignInController(TeamService team, ProgrammeService programme) {
    this.team = team;
    this.programme = programme;
  }

  /**
   * @param setUpNeeded whether this server has no person yet
   * @param demoPeople logins of the demo, whose passwords are public; empty otherwise
   */
  record Door(boolean setUpNeeded, String programme, List<DemoPerson> demoPeople) {}

  record DemoPerson(String login, String name, Role role) {}

  record Credentials(
      @NotBlank @Size(max = 60) String login, @NotBlank @Size(max = 200) String password) {}

  record SetUp(
      @NotBlank @Size(max = 200) String programme,
      @NotBlank @Size(max = 60) String zone,
      @NotBlank @Size(max = 60) String login,
      @NotBlank @Size(max = 120) String name,
      @NotBlank @Size(max = 200) String password) {}

  @GetMapping("/auth/door")
  Door door() {
    List<DemoPerson> demo =
        programme.current().demo()
            ? team.people().stream()
                .map(person -> new DemoPerson(person.login(), person.name(), person.role()))
                .toList()
            : List.of();
    return new Door(team.isEmpty(), programme.current().name(), demo);
  }

  @PostMapping("/auth/sign-in")
  Person signIn(
      @Valid @RequestBody Credentials credentials,
      HttpServletRequest request,
      HttpServletResponse response) {
    String who = credentials.login() + " " + request.getRemoteAddr();
    AtomicInteger failed = failures.get(who, key -> new AtomicInteger());
    if (failed.get() >= MOST_FAILURES) {
      throw refused(
          HttpStatus.TOO_MANY_REQUESTS, "Too many failed sign-ins. Try again in ten minutes.");
    }
    Person person = team.verify(credentials.login(), credentials.password());
    if (person == null) {
      failed.incrementAndGet();
      throw refused(HttpStatus.UNAUTHORIZED, "Login and password do not match.");
    }
    failures.invalidate(who);
    open(person, request, response);
    return person;
  }

  @PostMapping("/auth/set-up")
  synchronized Person setUp(
      @Valid @RequestBody SetUp setUp, HttpServletRequest request, HttpServletResponse response) {
    if (!team.isEmpty()) {
      throw new Refused("This server is set up already; ask its lead for a sign-in.");
    }
    Person lead = team.add(setUp.login(), setUp.name(), Role.LEAD, setUp.password());
    programme.rename(setUp.programme(), setUp.zone());
    open(lead, request, response);
    return lead;
  }

  @PostMapping("/auth/sign-out")
  void signOut(HttpServletRequest request) {
    if (request.getSession(false) != null) {
      request.getSession(false).invalidate();
    }
    SecurityContextHolder.clearContext();
  }

  private void open(Person person, HttpServletRequest request, HttpServletResponse response) {
    if (request.getSession(false) != null) {
      request.changeSessionId();
    }
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(
        UsernamePasswordAuthenticationToken.authenticated(
            person.login(),
            null,
            List.of(new SimpleGrantedAuthority("ROLE_" + person.role().name()))));
    SecurityContextHolder.setContext(context);
    contexts.saveContext(context, request, response);
  }

  private static ErrorResponseException refused(HttpStatus status, String sentence) {
    return new ErrorResponseException(
        status, ProblemDetail.forStatusAndDetail(status, sentence), null);
  }
}
