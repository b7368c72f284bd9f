package org.transitum.server.team;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import org.transitum.server.team.TokenService.Token;

/** Lets the holder of a token in as that, and as nobody else: it has no role and no session. */
public final class TokenFilter extends OncePerRequestFilter {
  private static final String SCHEME = "Bearer ";

  private final TokenService tokens;

  public TokenFilter(TokenService tokens) {
    this.tokens = tokens;
  }

  /** Whether a request comes with a token. */
  public static boolean carriesToken(HttpServletRequest request) {
    String header = request.getHeader("Authorization");
    return header != null && header.regionMatches(true, 0, SCHEME, 0, SCHEME.length());
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    String secret = request.getHeader("Authorization").substring(SCHEME.length()).strip();
    Optional<Token> token = tokens.use(secret);
    if (token.isPresent()) {
      SecurityContext context = SecurityContextHolder.createEmptyContext();
      context.setAuthentication(
          UsernamePasswordAuthenticationToken.authenticated(
              "token " + token.get().name(),
              "",
              List.of(new SimpleGrantedAuthority(CurrentPerson.TOKEN + token.get().purpose()))));
      SecurityContextHolder.setContext(context);
    }
    chain.doFilter(request, response);
  }
}
