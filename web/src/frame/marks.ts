/** What a mark tells of a database. */
export interface MarkState {
  place: string;
  stage?: string | null;
  condition?: string | null;
  progress?: number | null;
}

/** One path of a mark, around the origin, within ±7. */
export interface MarkPart {
  d: string;
  fill: string;
  stroke?: string;
  "stroke-width"?: number;
  "stroke-dasharray"?: string;
}

const ring = (r = 5) => `M${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
const open = (colour: string, dash?: string): MarkPart => ({
  d: ring(),
  fill: "var(--surface)",
  stroke: colour,
  "stroke-width": 1.6,
  ...(dash ? { "stroke-dasharray": dash } : {}),
});

/** A disc's part from twelve o'clock; 0 to 1. */
export function sector(share: number, r = 5): string {
  const angle = Math.min(0.9999, Math.max(0, share)) * 2 * Math.PI - Math.PI / 2;
  return `M0 0V${-r}A${r} ${r} 0 ${share > 0.5 ? 1 : 0} 1 ${(r * Math.cos(angle)).toFixed(3)} ${(r * Math.sin(angle)).toFixed(3)}Z`;
}

/** How much of the disc is filled at a stage. */
export function share(state: MarkState): number {
  switch (state.stage) {
    case "SETTING_UP":
      return 0.08;
    case "COPYING":
      return 0.12 + 0.5 * (state.progress ?? 0);
    case "FOLLOWING":
      return 0.75;
    case "SWITCHING":
      return 0.85;
    default:
      return 0.93;
  }
}

export function markPath(state: MarkState): MarkPart[] {
  switch (state.place) {
    case "UNPLANNED":
      return [open("var(--ink3)", "2 1.6")];
    case "PLANNED":
      return [open("var(--current)")];
    case "PREPARED":
      return [open("var(--current)"), { d: ring(1.9), fill: "var(--current)" }];
    case "LANDED":
      return [{ d: ring(5.6), fill: "var(--current)" }];
    case "SETTLED":
      return [
        { d: ring(5.6), fill: "var(--proved)" },
        { d: "M-2.6 .2l1.9 2 3.3-3.9", fill: "none", stroke: "var(--surface)", "stroke-width": 1.5 },
      ];
    case "CROSSING":
      return crossing(state);
    default:
      return [{ d: "M-5 0h10", fill: "none", stroke: "var(--ink3)", "stroke-width": 2 }];
  }
}

function crossing(state: MarkState): MarkPart[] {
  if (state.condition === "STALLED") {
    return [{ d: "M0 -6.4L6.4 0L0 6.4L-6.4 0Z", fill: "var(--act)" }];
  }
  if (state.stage === "HELD") {
    return [{ d: "M-4.5 -5h3.4v10h-3.4ZM1.1 -5h3.4v10h-3.4Z", fill: "var(--look-mark)" }];
  }
  return [open("var(--current)"), { d: sector(share(state)), fill: "var(--current)" }];
}

/** The same in words, for people who do not see the mark. */
export function markWords(state: MarkState): string {
  const plain = (text: string) => text.toLowerCase().replaceAll("_", " ");
  if (state.place !== "CROSSING") return plain(state.place);
  const stage = plain(state.stage ?? "crossing");
  return state.condition === "STALLED" ? `${stage}, stalled` : stage;
}
