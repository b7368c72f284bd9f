package org.transitum.core.team;

/** What a person is to the programme; see each endpoint for what a role may do. */
public enum Role {
  LEAD,
  ENGINEER,
  OWNER,
  OBSERVER
}
