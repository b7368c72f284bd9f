package org.transitum.server.web;

import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.transitum.server.team.RoleGuard;

@Configuration
class WebConfig implements WebMvcConfigurer {
  private static final List<String> PAGES =
      List.of("/", "/overview", "/inventory", "/sizing", "/dependencies", "/waves", "/crossings");

  private final RoleGuard guard;

  WebConfig(RoleGuard guard) {
    this.guard = guard;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(guard).addPathPatterns("/api/**");
  }

  /** The front end's own addresses, so that one can be opened, sent and reloaded. */
  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    PAGES.forEach(page -> registry.addViewController(page).setViewName("forward:/index.html"));
  }
}
