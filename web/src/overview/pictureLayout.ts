import type { Schemas } from "../api/client";

type Mark = Schemas["Mark"];
type Lane = Schemas["Lane"];

/** The bands of the picture, from the own sites to the destination. */
export const BANDS = [
  { id: "UNPLANNED", label: "Unplanned", weight: 78 },
  { id: "PLANNED", label: "Planned", weight: 112 },
  { id: "PREPARED", label: "Prepared", weight: 92 },
  { id: "SETTING_UP", label: "Set up", weight: 52, crossing: true },
  { id: "COPYING", label: "Copying", weight: 62, crossing: true },
  { id: "FOLLOWING", label: "Following", weight: 68, crossing: true },
  { id: "HELD", label: "Held", weight: 48, crossing: true },
  { id: "SWITCHING", label: "Switch", weight: 52, crossing: true },
  { id: "LANDED", label: "Landed", weight: 76 },
  { id: "SETTLED", label: "Settled", weight: 84 },
] as const;

export type BandId = (typeof BANDS)[number]["id"];

/** Which band a database stands in; null for one that does not cross. */
export function bandOf(mark: Mark): BandId | null {
  switch (mark.place) {
    case "UNPLANNED":
    case "PLANNED":
    case "PREPARED":
    case "LANDED":
    case "SETTLED":
      return mark.place;
    case "RETIRED":
      return "SETTLED";
    case "CROSSING":
      return mark.stage === "PROVING" ? "SWITCHING" : ((mark.stage as BandId) ?? "SETTING_UP");
    default:
      return null;
  }
}

export interface PlacedMark {
  mark: Mark;
  x: number;
  y: number;
}
export interface LaneBox {
  wave: string;
  name: string;
  lane?: Lane;
  y: number;
  height: number;
  marks: PlacedMark[];
  databases: number;
  crossed: number;
  bytes: number;
  crossedBytes: number;
}
export interface PictureBox {
  width: number;
  height: number;
  left: number;
  right: number;
  bands: { id: BandId; label: string; crossing: boolean; x: number; width: number }[];
  lanes: LaneBox[];
}

export const HEAD = 50;
const LEFT = 176;
const RIGHT = 104;
const CELL = 15;
const PAD = 10;
const LEAST_LANE = 46;

/** Lays the picture out; a lane grows with its marks. Sizes in px. */
export function layout(marks: Mark[], lanes: Lane[], width: number): PictureBox {
  const room = Math.max(500, width) - LEFT - RIGHT;
  const total = BANDS.reduce((sum, band) => sum + band.weight, 0);
  let x = LEFT;
  const bands = BANDS.map((band) => {
    const box = { id: band.id, label: band.label, crossing: "crossing" in band, x, width: (band.weight / total) * room };
    x += box.width;
    return box;
  });
  const boxes: LaneBox[] = [];
  let y = HEAD;
  for (const lane of [...lanes, undefined]) {
    const inLane = marks.filter((mark) => (mark.wave ?? undefined) === lane?.wave && bandOf(mark));
    if (!lane && !inLane.length) continue;
    const box = laneBox(inLane, lane, bands, y);
    boxes.push(box);
    y += box.height;
  }
  return { width: LEFT + room + RIGHT, height: y, left: LEFT, right: x, bands, lanes: boxes };
}

function laneBox(marks: Mark[], lane: Lane | undefined, bands: PictureBox["bands"], y: number): LaneBox {
  const placed: PlacedMark[] = [];
  let rows = 1;
  for (const band of bands) {
    const here = marks.filter((mark) => bandOf(mark) === band.id);
    const perRow = Math.max(1, Math.floor((band.width - PAD) / CELL));
    here.forEach((mark, i) => {
      placed.push({
        mark,
        x: band.x + PAD / 2 + CELL / 2 + (i % perRow) * CELL,
        y: y + 15 + Math.floor(i / perRow) * CELL,
      });
    });
    rows = Math.max(rows, Math.ceil(here.length / perRow));
  }
  const over = marks.filter((mark) => ["LANDED", "SETTLED", "RETIRED"].includes(mark.place));
  const sum = (of: Mark[]) => of.reduce((bytes, mark) => bytes + (mark.sizeBytes ?? 0), 0);
  return {
    wave: lane?.wave ?? "–",
    name: lane?.name ?? "No wave yet",
    lane,
    y,
    height: Math.max(LEAST_LANE, rows * CELL + 16),
    marks: placed,
    databases: marks.length,
    crossed: over.length,
    bytes: sum(marks),
    crossedBytes: sum(over),
  };
}
