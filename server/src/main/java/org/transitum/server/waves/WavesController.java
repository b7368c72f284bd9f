package org.transitum.server.waves;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.team.AllowedTo;
import org.transitum.server.waves.PlanService.PlanDraft;
import org.transitum.server.waves.WaveService.WavePreview;
import org.transitum.server.waves.WaveService.WavesView;

@RestController
@RequestMapping("/api/v1/waves")
class WavesController {
  private final WaveService waves;
  private final PlanService plans;
  private final WindowImport windows;

  WavesController(WaveService waves, PlanService plans, WindowImport windows) {
    this.waves = waves;
    this.plans = plans;
    this.windows = windows;
  }

  /**
   * @param seen the wave the person saw the group in; absent where it had none
   * @param wave where to; absent to take it out of its wave
   */
  record Placing(@NotBlank String group, @Nullable String seen, @Nullable String wave) {}

  record Lock(@NotBlank String group, boolean locked) {}

  record ReadWindows(int taken) {}

  record Drafts(@Nullable PlanDraft draft) {}

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  WavesView waves() {
    return waves.view();
  }

  /** The body is the file itself. */
  @PostMapping("/imports")
  @AllowedTo(LEAD)
  ReadWindows read(@RequestParam String name, HttpServletRequest request) throws IOException {
    return new ReadWindows(windows.read(name, request.getInputStream()));
  }

  @GetMapping("/preview")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<WavePreview> preview(@RequestParam String group) {
    return waves.preview(group);
  }

  @PutMapping("/placements")
  @AllowedTo(LEAD)
  WavesView place(@Valid @RequestBody Placing placing) {
    waves.place(placing.group(), placing.seen(), placing.wave());
    return waves.view();
  }

  @PutMapping("/locks")
  @AllowedTo(LEAD)
  WavesView lock(@Valid @RequestBody Lock lock) {
    waves.lock(lock.group(), lock.locked());
    return waves.view();
  }

  @PostMapping("/plans")
  @AllowedTo(LEAD)
  PlanDraft plan() {
    return plans.plan();
  }

  @GetMapping("/plans/draft")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  Drafts draft() {
    return new Drafts(plans.openDraft());
  }

  @PostMapping("/plans/{id}/accept")
  @AllowedTo(LEAD)
  WavesView accept(@PathVariable long id) {
    plans.accept(id);
    return waves.view();
  }

  @DeleteMapping("/plans/{id}")
  @AllowedTo(LEAD)
  void discard(@PathVariable long id) {
    plans.discard(id);
  }
}
