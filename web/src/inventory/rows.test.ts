import { describe, expect, it } from "vitest";
import type { PlaceView } from "../shared/queries";
import { asTable, facetCounts, filtered, grouped, inLens, NONE, sizeTogether, sorted, type Query } from "./rows";
import { testEstate } from "../test/estate";

const table = testEstate(
  {
    "A/one": { size_bytes: "5", owner: "Ann", criticality: "low", host: "h1" },
    "A/two": { owner: "Bo", criticality: "critical", host: "h1" },
    "B/three": { size_bytes: "10", criticality: "high", host: "h2" },
  },
  { unknown: { "A/two": ["size_bytes"] }, contradicted: { "B/three": ["host"] }, stale: {} },
);
const none = new Map<string, PlaceView>();
const query = (more: Partial<Query> = {}): Query => ({ filters: {}, text: "", ...more });
const keys = (rows: { key: string }[]) => rows.map((row) => row.key);

describe("the table", () => {
  it("narrows by facets; values of one facet are alternatives", () => {
    expect(keys(filtered(table.rows, query({ filters: { owner: ["Ann", "Bo"] } }), none))).toEqual(["A/one", "A/two"]);
    expect(keys(filtered(table.rows, query({ filters: { owner: [NONE] } }), none))).toEqual(["B/three"]);
    const places = new Map([["A/two", { wave: "W01" } as PlaceView]]);
    expect(keys(filtered(table.rows, query({ filters: { wave: ["W01"] } }), places))).toEqual(["A/two"]);
  });
  it("looks through a lens and counts what it shows", () => {
    expect(keys(filtered(table.rows, query({ lens: "gaps" }), none))).toEqual(["A/two"]);
    expect(keys(filtered(table.rows, query({ lens: "contradicted" }), none))).toEqual(["B/three"]);
    expect(inLens(table.rows, "gaps")).toBe(1);
    expect(inLens(table.rows, "stale")).toBe(0);
  });
  it("finds every word anywhere in what is known", () => {
    expect(keys(filtered(table.rows, query({ text: "H1 critical" }), none))).toEqual(["A/two"]);
    expect(keys(filtered(table.rows, query({ text: "thr" }), none))).toEqual(["B/three"]);
    expect(filtered(table.rows, query({ text: "h1 nowhere" }), none)).toEqual([]);
  });
  it("counts what each value would leave, given everything else", () => {
    const counts = facetCounts(table.rows, query({ filters: { criticality: ["high"], owner: ["Ann"] } }), "owner", none);
    expect(counts).toEqual([{ value: NONE, count: 1 }]);
  });
  it("sorts numbers as numbers and puts unknown last in both directions", () => {
    expect(keys(sorted(table.rows, table, "size_bytes", false))).toEqual(["A/one", "B/three", "A/two"]);
    expect(keys(sorted(table.rows, table, "size_bytes", true))).toEqual(["B/three", "A/one", "A/two"]);
    expect(keys(sorted(table.rows, table, "name", true))).toEqual(["B/three", "A/two", "A/one"]);
  });
  it("sorts criticality by weight, not by letter", () => {
    expect(sorted(table.rows, table, "criticality", false).map((row) => row.text("criticality"))).toEqual(["critical", "high", "low"]);
  });
  it("groups with totals and keeps the order within", () => {
    const lines = grouped(table.rows, "instance", none);
    expect(lines.map((line) => (line.kind === "group" ? line.key : line.row.name))).toEqual(["A", "one", "two", "B", "three"]);
    expect(lines[0]).toMatchObject({ count: 2, size: "0 MiB and 1 of unknown size" });
    const places = new Map([["A/two", { wave: "W01" } as PlaceView]]);
    expect(grouped(table.rows, "wave", places).flatMap((line) => (line.kind === "group" ? [line.key] : []))).toEqual(["W01", "no wave"]);
  });
  it("never adds up what is unknown as nothing", () => {
    const size = (facts: Record<string, Record<string, string | null>>) => sizeTogether(testEstate(facts).rows);
    expect(size({ "A/one": { size_bytes: String(3 * 2 ** 30) }, "A/two": { size_bytes: String(2 ** 30) } })).toBe("4.0 GiB");
    expect(size({ "A/one": { size_bytes: String(3 * 2 ** 30) }, "A/two": { size_bytes: null } })).toBe("3.0 GiB and 1 of unknown size");
    expect(size({ "A/two": { size_bytes: null } })).toBe("size unknown");
    expect(sizeTogether([])).toBe("0 MiB");
  });
  it("sorts as an obvious sort does, on random cells", () => {
    let seed = 7;
    const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
    const facts = Object.fromEntries(
      Array.from({ length: 300 }, (_, i) => [`I${i % 7}/d${i}`, { size_bytes: random() < 0.2 ? null : String(Math.floor(random() * 50)) }]),
    );
    const estate = testEstate(facts);
    const got = sorted(estate.rows, estate, "size_bytes", false).map((row) => row.number("size_bytes"));
    const known = got.filter((size): size is number => size != null);
    expect(got.slice(known.length).every((size) => size == null)).toBe(true);
    expect(known).toEqual([...known].sort((a, b) => a - b));
  });
});

describe("copy as table", () => {
  it("names the columns as the files do and keeps exact values", () => {
    expect(asTable(table.rows.slice(0, 1), "DATABASE", ["size_bytes", "owner"])).toBe("instance\tdatabase\tsize_bytes\towner\nA\tone\t5\tAnn");
    expect(asTable(testEstate({ h1: { site: "x" } }, {}, "HOST").rows, "HOST", ["site"])).toBe("host\tsite\nh1\tx");
  });
  it("defuses formulas on the way to a spreadsheet", () => {
    const hostile = testEstate({ "A/=cmd|'x'!A1": { owner: "@sum" }, "A/b": { owner: "a\tb\nc" } });
    const text = asTable(hostile.rows, "DATABASE", ["owner"]);
    expect(text).toContain("'=cmd|'x'!A1\t'@sum");
    expect(text).toContain("a b c");
  });
});
