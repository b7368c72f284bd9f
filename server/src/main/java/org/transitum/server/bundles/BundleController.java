package org.transitum.server.bundles;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.bundles.BundleService.AcceptedBundle;
import org.transitum.server.bundles.BundleService.Bundle;
import org.transitum.server.bundles.BundleService.ReceivedBundle;
import org.transitum.server.team.AllowedTo;
import org.transitum.server.team.TokenPurpose;

@RestController
@RequestMapping("/api/v1/bundles")
class BundleController {
  private final BundleService bundles;

  BundleController(BundleService bundles) {
    this.bundles = bundles;
  }

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<Bundle> bundles() {
    return bundles.latest();
  }

  /** The body is the bundle itself. */
  @PostMapping
  @AllowedTo(
      value = {LEAD, ENGINEER},
      tokens = TokenPurpose.PUSH_BUNDLES)
  ReceivedBundle receiveBundle(@RequestParam String name, HttpServletRequest request)
      throws IOException {
    return bundles.receive(name, request.getInputStream());
  }

  @PostMapping("/{id}/accept")
  @AllowedTo({LEAD, ENGINEER})
  AcceptedBundle acceptBundle(@PathVariable long id) {
    return bundles.accept(id);
  }

  @DeleteMapping("/{id}")
  @AllowedTo({LEAD, ENGINEER})
  void discardBundle(@PathVariable long id) throws IOException {
    bundles.discard(id);
  }
}
