import { describe, expect, it } from "vitest";
import type { DatabaseRow, PlaceView } from "../shared/queries";
import { asTable, facetCounts, filtered, grouped, NONE, sorted, totalBytes } from "./rows";

const row = (key: string, more: Partial<DatabaseRow> = {}): DatabaseRow => ({
  key,
  instance: key.split("/")[0],
  name: key.split("/")[1],
  unknown: [],
  ...more,
});
const rows = [
  row("A/one", { sizeBytes: 5, owner: "Ann", criticality: "low" }),
  row("A/two", { owner: "Bo", criticality: "critical", unknown: ["size_bytes"] }),
  row("B/three", { sizeBytes: 9, criticality: "high" }),
];

describe("the table", () => {
  it("narrows by facets; values of one facet are alternatives", () => {
    expect(filtered(rows, { owner: ["Ann", "Bo"] }, false).map((r) => r.key)).toEqual(["A/one", "A/two"]);
    expect(filtered(rows, { owner: [NONE] }, false).map((r) => r.key)).toEqual(["B/three"]);
    expect(filtered(rows, {}, true).map((r) => r.key)).toEqual(["A/two"]);
  });
  it("counts what each value would leave, given the other facets", () => {
    expect(facetCounts(rows, { criticality: ["high"], owner: ["Ann"] }, "owner")).toEqual([{ value: NONE, count: 1 }]);
  });
  it("puts unknown last in both directions", () => {
    expect(sorted(rows, "sizeBytes", false).map((r) => r.key)).toEqual(["A/one", "B/three", "A/two"]);
    expect(sorted(rows, "sizeBytes", true).map((r) => r.key)).toEqual(["B/three", "A/one", "A/two"]);
  });
  it("sorts criticality by weight, not by letter", () => {
    expect(sorted(rows, "criticality", false).map((r) => r.criticality)).toEqual(["critical", "high", "low"]);
  });
  it("groups with totals and keeps the order within", () => {
    const lines = grouped(rows, "instance", new Map());
    expect(lines.map((line) => (line.kind === "group" ? line.key : line.row.name))).toEqual(["A", "one", "two", "B", "three"]);
    expect(lines[0]).toMatchObject({ count: 2, sizeBytes: 5 });
    const places = new Map([["A/two", { wave: "W01" } as PlaceView]]);
    expect(grouped(rows, "wave", places)[0]).toMatchObject({ key: "W01", count: 1 });
    expect(totalBytes(rows)).toBe(14);
  });
  it("defuses formulas on the way to a spreadsheet", () => {
    expect(asTable([row("A/=cmd|'x'!A1", { owner: "@sum" })])).toContain("'=cmd|'x'!A1\t");
    expect(asTable([row("A/one", { owner: "a\tb\nc" })])).toContain("a b c");
  });
});
