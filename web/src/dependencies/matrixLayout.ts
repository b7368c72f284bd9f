import type { Schemas } from "../api/client";

type Tie = Schemas["TieView"];
type Group = Schemas["MoveGroup"];

export interface MatrixBand {
  wave: string;
  from: number;
  to: number;
}
export interface MatrixCell {
  tie: Tie;
  row: number;
  column: number;
  cut: boolean;
}
export interface Matrix {
  order: string[];
  bands: MatrixBand[];
  groups: { key: string; from: number; to: number }[];
  cells: MatrixCell[];
}

const LAST = "~no wave";

/**
 * Orders the tied databases by wave, then group, then key, so that groups form blocks along the
 * diagonal. Databases without a tie are left out. A tie stands at (from, to). It is cut when its ends
 * are in different waves; an ordered one only when its first goes later (wave keys sort as waves do).
 */
export function matrix(ties: Tie[], groups: Group[], waveOf: (database: string) => string | undefined): Matrix {
  const tied = new Set(ties.flatMap((tie) => [tie.from, tie.to]));
  const groupOf = new Map(groups.flatMap((group) => group.members.map((member) => [member, group.key] as const)));
  const rank = (key: string) => [waveOf(key) ?? LAST, groupOf.get(key) ?? key, key];
  const order = [...tied].sort((a, b) => {
    const [one, other] = [rank(a), rank(b)];
    const at = one.findIndex((part, i) => part !== other[i]);
    return at < 0 ? 0 : one[at] < other[at] ? -1 : 1;
  });
  const index = new Map(order.map((key, i) => [key, i]));
  return {
    order,
    bands: runs(order, (key) => waveOf(key) ?? LAST).map(({ key, from, to }) => ({ wave: key === LAST ? "no wave" : key, from, to })),
    groups: runs(order, (key) => groupOf.get(key) ?? key).filter((run) => run.to - run.from > 1),
    cells: ties.map((tie) => ({
      tie,
      row: index.get(tie.from) ?? 0,
      column: index.get(tie.to) ?? 0,
      cut: isCut(tie.kind, waveOf(tie.from), waveOf(tie.to)),
    })),
  };
}

function isCut(kind: Tie["kind"], from?: string, to?: string): boolean {
  if (!from || !to) return false;
  return kind === "ORDERED" ? from > to : from !== to;
}

/** Runs of equal keys, half open. */
function runs(order: string[], keyOf: (key: string) => string): { key: string; from: number; to: number }[] {
  const found: { key: string; from: number; to: number }[] = [];
  order.forEach((item, i) => {
    const key = keyOf(item);
    const last = found[found.length - 1];
    if (last?.key === key) last.to = i + 1;
    else found.push({ key, from: i, to: i + 1 });
  });
  return found;
}
