import type { Schemas } from "../api/client";

type Move = Schemas["MoveRequest"]["move"];

/** What a move's button says: what will happen. */
export const MOVE_WORDS: Record<Move, string> = {
  COPY: "Start copying",
  FOLLOW: "Start following",
  HOLD: "Hold",
  GO_ON: "Go on following",
  SWITCH: "Switch",
  PROVE: "Start proving",
  FINISH: "Finish: it is proved",
  STALL: "Mark stalled",
  RETRY: "Try again",
  STOP: "Stop",
  REVERT: "Fall back",
};

/** What a move means for the night, asked before it is made; moves that are not listed need no asking. */
export const CONSEQUENCE: Partial<Record<Move, string>> = {
  HOLD: "It keeps following the source but goes no further until somebody lets it.",
  SWITCH: "The application is down from here until it is proved. Falling back stays possible.",
  FINISH: "The database counts as landed. Falling back is no longer offered here.",
  STALL: "Everybody sees it as stalled, with your reason, until somebody tries again.",
  STOP: "This crossing ends. The source was never left; a new crossing starts from nothing.",
  REVERT: "The application goes back to the source. What was written on the target is lost.",
};

export const ASKS_REASON: Move[] = ["HOLD", "STALL", "STOP", "REVERT"];
export const DANGER: Move[] = ["STOP", "REVERT", "STALL"];
