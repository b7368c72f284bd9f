import type { Schemas } from "../api/client";

type Tie = Schemas["TieView"];

/**
 * What can be reached from the seeds in some steps, nearest first, at most so many databases; with
 * every tie between them.
 */
export function neighbourhood(ties: Tie[], seeds: string[], steps: number, most: number): { keys: string[]; ties: Tie[] } {
  const keys = [...new Set(seeds)];
  let edge = [...keys];
  for (let step = 0; step < steps && keys.length < most; step++) {
    const next: string[] = [];
    for (const tie of ties) {
      for (const [one, other] of [
        [tie.from, tie.to],
        [tie.to, tie.from],
      ]) {
        if (edge.includes(one) && !keys.includes(other) && keys.length < most) {
          keys.push(other);
          next.push(other);
        }
      }
    }
    edge = next;
  }
  return { keys, ties: ties.filter((tie) => keys.includes(tie.from) && keys.includes(tie.to)) };
}
