package org.transitum.server.team;

import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.transitum.core.team.Role;

/** Who makes the call that is being served. */
@Component
public class CurrentPerson {
  /** The login that stands for the server itself in the journal. */
  public static final String SERVER = "server";

  static final String ROLE = "ROLE_";
  static final String TOKEN = "TOKEN_";

  public String login() {
    Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
    return authentication == null ? SERVER : authentication.getName();
  }

  /** The role of the person who signed in; empty for a token, and for the server itself. */
  public Optional<Role> role() {
    return authorities(ROLE).map(Role::valueOf).findFirst();
  }

  /** What the token that came with the call is for; empty for a person. */
  public Optional<TokenPurpose> tokenPurpose() {
    return authorities(TOKEN).map(TokenPurpose::valueOf).findFirst();
  }

  private static Stream<String> authorities(String prefix) {
    Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
    return authentication == null
        ? Stream.empty()
        : authentication.getAuthorities().stream()
            .map(authority -> String.valueOf(authority.getAuthority()))
            .filter(name -> name.startsWith(prefix))
            .map(name -> name.substring(prefix.length()));
  }
}
