import type { Schemas } from "../api/client";

type Change = Pick<Schemas["Change"], "kind" | "key" | "doubt">;

/** What a person takes of a difference. */
export interface Choices {
  /** Ids of the changes that are taken. */
  chosen: Set<string>;
  /** By the id of a doubtful object, the known key that it is. */
  same: Record<string, string>;
}

export const idOf = (change: Change) => `${change.kind}:${change.key}`;

/**
 * The choices after the difference changed, as others work on the inventory meanwhile: what was
 * decided stays, what is new is taken, and what has become doubtful, or doubtful otherwise, is left
 * out until somebody says what it is.
 */
export function keptChoices(before: Change[], now: Change[], choices: Choices): Choices {
  const doubts = new Map(before.map((change) => [idOf(change), change.doubt?.key]));
  const decided = (change: Change) => doubts.has(idOf(change)) && doubts.get(idOf(change)) === change.doubt?.key;
  const kept = now.filter((change) => (decided(change) ? choices.chosen.has(idOf(change)) : !change.doubt));
  return {
    chosen: new Set(kept.map(idOf)),
    same: Object.fromEntries(kept.flatMap((change) => (choices.same[idOf(change)] ? [[idOf(change), choices.same[idOf(change)]]] : []))),
  };
}
