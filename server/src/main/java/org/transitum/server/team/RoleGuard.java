package org.transitum.server.team;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.springframework.web.ErrorResponseException;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.transitum.core.team.Role;

/** Checks {@link AllowedTo} on every call under /api/v1. */
@Component
public class RoleGuard implements HandlerInterceptor {
  private final CurrentPerson current;

  RoleGuard(CurrentPerson current) {
    this.current = current;
  }

  @Override
  public boolean preHandle(
      HttpServletRequest request, HttpServletResponse response, Object handler) {
    if (!(handler instanceof HandlerMethod method)
        || !method.getBeanType().getPackageName().startsWith("org.transitum")) {
      return true;
    }
    AllowedTo allowed = method.getMethodAnnotation(AllowedTo.class);
    boolean may =
        allowed != null
            && (current.role().filter(List.of(allowed.value())::contains).isPresent()
                || current.tokenPurpose().filter(List.of(allowed.tokens())::contains).isPresent());
    if (may) {
      return true;
    }
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(HttpStatus.FORBIDDEN, sentence(allowed));
    detail.setTitle("Not permitted");
    detail.setType(java.net.URI.create("urn:transitum:problem:not-permitted"));
    throw new ErrorResponseException(HttpStatus.FORBIDDEN, detail, null);
  }

  private String sentence(@Nullable AllowedTo allowed) {
    if (current.tokenPurpose().isPresent()) {
      return "This token may not do this; it is good for one purpose only.";
    }
    String who =
        allowed == null
            ? "nobody"
            : Arrays.stream(allowed.value()).map(RoleGuard::word).collect(Collectors.joining(", "));
    return "Your role (%s) may not do this; it is for: %s."
        .formatted(current.role().map(RoleGuard::word).orElse("none"), who);
  }

  private static String word(Role role) {
    return role.name().toLowerCase(Locale.ROOT);
  }
}
