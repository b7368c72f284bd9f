import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { matrix } from "./matrixLayout";
import { neighbourhood } from "./neighbourhood";

type Tie = Schemas["TieView"];
let id = 0;
const tie = (from: string, to: string, kind: Tie["kind"] = "LOOSE"): Tie => ({
  id: ++id, from, to, kind, weight: 1, state: "CONFIRMED", version: 1, evidence: [],
});
const waves: Record<string, string> = { a: "W02", b: "W01", c: "W01" };

describe("the matrix", () => {
  const ties = [tie("a", "b"), tie("b", "c", "BOUND"), tie("d", "a")];
  const drawn = matrix(ties, [{ key: "b", members: ["b", "c"] }], (key) => waves[key]);
  it("orders by wave, then group, with the unplaced last", () => {
    expect(drawn.order).toEqual(["b", "c", "a", "d"]);
    expect(drawn.bands).toEqual([
      { wave: "W01", from: 0, to: 2 },
      { wave: "W02", from: 2, to: 3 },
      { wave: "no wave", from: 3, to: 4 },
    ]);
  });
  it("makes a group a block", () => {
    expect(drawn.groups).toEqual([{ key: "b", from: 0, to: 2 }]);
  });
  it("calls a tie cut only between two waves", () => {
    expect(drawn.cells.map((cell) => cell.cut)).toEqual([true, false, false]);
  });
  it("leaves an ordered tie whole while its first does not go later", () => {
    const ordered = matrix([tie("b", "a", "ORDERED"), tie("a", "b", "ORDERED")], [], (key) => waves[key]);
    expect(ordered.cells.map((cell) => cell.cut)).toEqual([false, true]);
  });
});

it("finds what is near, nearest first and bounded", () => {
  const chain = [tie("1", "2"), tie("2", "3"), tie("3", "4"), tie("9", "8")];
  expect(neighbourhood(chain, ["1"], 2, 10).keys).toEqual(["1", "2", "3"]);
  expect(neighbourhood(chain, ["1"], 2, 2).keys).toEqual(["1", "2"]);
  expect(neighbourhood(chain, ["1"], 2, 10).ties).toHaveLength(2);
});
