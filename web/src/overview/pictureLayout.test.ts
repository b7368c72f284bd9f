import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { bandOf, layout } from "./pictureLayout";

type Mark = Schemas["Mark"];
const mark = (database: string, place: Mark["place"], more: Partial<Mark> = {}): Mark => ({ database, place, ...more });
const lane = { wave: "W01", name: "Pilot", start: "2026-11-24T22:00:00Z", end: "2026-11-25T04:00:00Z" };

describe("the crossing picture", () => {
  it("stands each database in the band of its place and stage", () => {
    expect(bandOf(mark("a", "CROSSING", { stage: "PROVING" }))).toBe("SWITCHING");
    expect(bandOf(mark("a", "CROSSING", { stage: "HELD" }))).toBe("HELD");
    expect(bandOf(mark("a", "OUT_OF_SCOPE"))).toBeNull();
  });
  it("lets a lane grow until every mark fits inside it", () => {
    const marks = Array.from({ length: 120 }, (_, i) => mark(`d${i}`, "PLANNED", { wave: "W01" }));
    const box = layout(marks, [lane], 900);
    const [only] = box.lanes;
    expect(only.marks).toHaveLength(120);
    const bottom = Math.max(...only.marks.map((placed) => placed.y));
    expect(bottom + 7).toBeLessThanOrEqual(only.y + only.height);
    expect(new Set(only.marks.map((placed) => `${placed.x},${placed.y}`)).size).toBe(120);
  });
  it("has a lane for what has no wave only while there is any", () => {
    expect(layout([mark("a", "UNPLANNED")], [lane], 900).lanes.map((one) => one.wave)).toEqual(["W01", "–"]);
    expect(layout([], [lane], 900).lanes.map((one) => one.wave)).toEqual(["W01"]);
  });
  it("counts what is across", () => {
    const box = layout(
      [mark("a", "LANDED", { wave: "W01", sizeBytes: 3 }), mark("b", "PLANNED", { wave: "W01", sizeBytes: 4 })],
      [lane],
      900,
    );
    expect(box.lanes[0]).toMatchObject({ databases: 2, crossed: 1, bytes: 7, crossedBytes: 3 });
  });
});
