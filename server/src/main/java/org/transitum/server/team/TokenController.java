package org.transitum.server.team;

import static org.transitum.core.team.Role.LEAD;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.team.TokenService.NewToken;
import org.transitum.server.team.TokenService.Token;

@RestController
@RequestMapping("/api/v1/team/tokens")
class TokenController {
  private final TokenService tokens;

  TokenController(TokenService tokens) {
    this.tokens = tokens;
  }

  record TokenEntry(@NotBlank @Size(max = 50) String name) {}

  @GetMapping
  @AllowedTo(LEAD)
  List<Token> tokens() {
    return tokens.valid();
  }

  @PostMapping
  @AllowedTo(LEAD)
  NewToken makeToken(@Valid @RequestBody TokenEntry entry) {
    return tokens.make(entry.name(), TokenPurpose.PUSH_BUNDLES);
  }

  @DeleteMapping("/{id}")
  @AllowedTo(LEAD)
  void revokeToken(@PathVariable long id) {
    tokens.revoke(id);
  }
}
