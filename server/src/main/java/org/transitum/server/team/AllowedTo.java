package org.transitum.server.team;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.transitum.core.team.Role;

/** Which roles may call an endpoint. One without it is refused to everybody. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface AllowedTo {
  Role[] value();

  /** Tokens that may call it, too; none unless said. */
  TokenPurpose[] tokens() default {};
}
