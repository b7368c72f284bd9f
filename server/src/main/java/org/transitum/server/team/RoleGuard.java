package org.transitum.server.team;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Arrays;
import java.util.stream.Collectors;
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
    Role role = current.role();
    if (allowed != null && Arrays.asList(allowed.value()).contains(role)) {
      return true;
    }
    String who =
        allowed == null
            ? "nobody"
            : Arrays.stream(allowed.value())
                .map(r -> r.name().toLowerCase(java.util.Locale.ROOT))
                .collect(Collectors.joining(", "));
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.FORBIDDEN,
            "Your role (%s) may not do this; it is for: %s."
                .formatted(role.name().toLowerCase(java.util.Locale.ROOT), who));
    detail.setTitle("Not permitted");
    detail.setType(java.net.URI.create("urn:transitum:problem:not-permitted"));
    throw new ErrorResponseException(HttpStatus.FORBIDDEN, detail, null);
  }
}
