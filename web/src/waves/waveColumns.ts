import type { Schemas } from "../api/client";

type Wave = Schemas["WaveView"];
type Freeze = Schemas["FreezeView"];

export type Column = { kind: "wave"; wave: Wave } | { kind: "freeze"; freeze: Freeze };

/** Waves and freezes in the order of their start. */
export function columns(waves: Wave[], freezes: Freeze[]): Column[] {
  const all: (Column & { at: string })[] = [
    ...waves.map((wave) => ({ kind: "wave" as const, wave, at: wave.start })),
    ...freezes.map((freeze) => ({ kind: "freeze" as const, freeze, at: freeze.start })),
  ];
  return all.sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

export interface Fill {
  label: string;
  ratio: number;
  words: string;
}

/** How full a wave is under each of its limits. */
export function fills(wave: Wave): Fill[] {
  const window = (Date.parse(wave.end) - Date.parse(wave.start)) / 60_000;
  const tib = (bytes: number) => (bytes / 2 ** 40).toFixed(1);
  return [
    { label: "databases", ratio: wave.databases / wave.maxDatabases, words: `${wave.databases} of ${wave.maxDatabases} databases` },
    { label: "bytes", ratio: wave.bytes / wave.maxBytes, words: `${tib(wave.bytes)} of ${tib(wave.maxBytes)} TiB` },
    {
      label: "outage",
      ratio: wave.longestOutageMinutes / window,
      words: `longest outage ${wave.longestOutageMinutes} min of a window of ${Math.round(window / 60)} h`,
    },
  ];
}

/** A group's block grows with its databases, so that its weight is seen. */
export function blockHeight(databases: number): number {
  return 50 + Math.min(60, (databases - 1) * 7);
}
