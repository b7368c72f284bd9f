package org.transitum.server.team;

import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.transitum.core.team.Role;

/** Who makes the call that is being served. */
@Component
public class CurrentPerson {
  /** The login that stands for the server itself in the journal. */
  public static final String SERVER = "server";

  public String login() {
    Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
    return authentication == null ? SERVER : authentication.getName();
  }

  public Role role() {
    Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
    return authentication == null
        ? Role.OBSERVER
        : authentication.getAuthorities().stream()
            .map(authority -> authority.getAuthority())
            .filter(name -> name.startsWith("ROLE_"))
            .map(name -> Role.valueOf(name.substring("ROLE_".length())))
            .findFirst()
            .orElse(Role.OBSERVER);
  }
}
