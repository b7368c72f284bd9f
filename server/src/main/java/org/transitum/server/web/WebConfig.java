package org.transitum.server.web;

import java.time.Duration;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
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

  /** Their names change with their content, so a browser need never ask for one again. */
  @Override
  public void addResourceHandlers(ResourceHandlerRegistry registry) {
    registry
        .addResourceHandler("/assets/**")
        .addResourceLocations("classpath:/static/assets/")
        .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable());
  }

  /** The front end's own addresses, so that one can be opened, sent and reloaded. */
  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    PAGES.forEach(page -> registry.addViewController(page).setViewName("forward:/index.html"));
  }
}
