package org.transitum.standins;

/** How a stand-in differs from a server that answers well. */
public enum Trouble {
  NONE,
  /** Answers after some seconds. */
  SLOW,
  /** Takes the question and never answers. */
  HANGING,
  /** Lets nobody in. */
  REFUSING,
  /** Tells sizes only, and says what it may not tell. */
  HALF_PERMITTED,
  /** A database comes and another goes between two readings. */
  CHANGING,
  /** Breaks off in the middle of its answer. */
  BREAKING
}
