package org.transitum.server.web;

import jakarta.servlet.http.HttpServletResponse;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CsrfConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.AnonymousAuthenticationFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.transitum.server.team.TokenFilter;
import org.transitum.server.team.TokenService;

@Configuration
class SecurityConfig {
  /**
   * Vuetify writes its theme into a style element, hence inline styles; scripts come from here
   * only.
   */
  private static final String CONTENT_POLICY =
      "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:;"
          + " font-src 'self' data:; connect-src 'self'; worker-src 'self' blob:; object-src 'none';"
          + " base-uri 'self'; form-action 'self'; frame-ancestors 'none'";

  /**
   * Calls with a token: apart from people's, as they have no session and so need no protection
   * against other pages.
   */
  @Bean
  @Order(1)
  SecurityFilterChain tokens(HttpSecurity http, TokenService tokens) throws Exception {
    http.securityMatcher(
            request ->
                TokenFilter.carriesToken(request) && request.getRequestURI().startsWith("/api/"))
        .csrf(csrf -> csrf.disable())
        .sessionManagement(
            session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
        .addFilterBefore(new TokenFilter(tokens), AnonymousAuthenticationFilter.class)
        .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
        .exceptionHandling(
            exceptions ->
                exceptions.authenticationEntryPoint(
                    (request, response, e) ->
                        answer(response, 401, "The token is not known here, or was revoked.")))
        .requestCache(cache -> cache.disable())
        .logout(logout -> logout.disable());
    return http.build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain people(HttpSecurity http) throws Exception {
    http.csrf(CsrfConfigurer::spa)
        .authorizeHttpRequests(
            requests ->
                requests.requestMatchers("/api/**").authenticated().anyRequest().permitAll())
        .exceptionHandling(
            exceptions ->
                exceptions
                    .authenticationEntryPoint(
                        (request, response, e) -> answer(response, 401, "Sign in first."))
                    .accessDeniedHandler(
                        (request, response, e) ->
                            answer(
                                response,
                                403,
                                "The request lacks its protection token; load the page again.")))
        .headers(
            headers ->
                headers
                    .contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                    .referrerPolicy(policy -> policy.policy(ReferrerPolicy.SAME_ORIGIN))
                    .permissionsPolicyHeader(
                        policy -> policy.policy("camera=(), microphone=(), geolocation=()")))
        .requestCache(cache -> cache.disable())
        .logout(logout -> logout.disable());
    return http.build();
  }

  /** People sign in through SignInController only; this keeps a default account from existing. */
  @Bean
  UserDetailsService noOtherAccounts() {
    return login -> {
      throw new UsernameNotFoundException(login);
    };
  }

  private static void answer(HttpServletResponse response, int status, String sentence)
      throws java.io.IOException {
    response.setStatus(status);
    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    response.getWriter().write("{\"status\":%d,\"detail\":\"%s\"}".formatted(status, sentence));
  }
}
