package org.transitum.server.jobs;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/jobs")
class JobController {
  private final JobService jobs;

  JobController(JobService jobs) {
    this.jobs = jobs;
  }

  @GetMapping
  @AllowedTo({LEAD, ENGINEER})
  List<Job> jobs() {
    return jobs.latest();
  }

  @GetMapping("/{id}")
  @AllowedTo({LEAD, ENGINEER})
  Job job(@PathVariable long id) {
    return jobs.job(id);
  }

  @DeleteMapping("/{id}")
  @AllowedTo({LEAD, ENGINEER})
  void cancel(@PathVariable long id) {
    jobs.cancel(id);
  }
}
