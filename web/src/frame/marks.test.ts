import { describe, expect, it } from "vitest";
import { EstateTable } from "../inventory/estate";
import type { CrossingView } from "../shared/queries";
import { find } from "./find";
import { markPath, markWords, sector, share } from "./marks";

describe("marks", () => {
  it("differ by shape, not by colour alone", () => {
    const states = ["UNPLANNED", "PLANNED", "PREPARED", "LANDED", "SETTLED", "RETIRED"].map((place) => ({ place }));
    const shapes = states.map((state) => JSON.stringify(markPath(state).map((part) => [part.d, part["stroke-dasharray"], part.fill === "none"])));
    expect(new Set(shapes).size).toBe(states.length);
  });
  it("tell stalled and held apart from running in shape and words", () => {
    const running = { place: "CROSSING", stage: "COPYING", condition: "RUNNING", progress: 0.5 };
    expect(markPath({ ...running, condition: "STALLED" })).toHaveLength(1);
    expect(markWords({ ...running, condition: "STALLED" })).toBe("copying, stalled");
    expect(markWords({ ...running, stage: "HELD" })).toBe("held");
  });
  it("fill up along the way", () => {
    const at = (stage: string, progress = 0) => share({ place: "CROSSING", stage, progress });
    expect(at("SETTING_UP")).toBeLessThan(at("COPYING"));
    expect(at("COPYING", 0.2)).toBeLessThan(at("COPYING", 0.9));
    expect(at("COPYING", 1)).toBeLessThan(at("FOLLOWING"));
    expect(sector(0.75)).toContain("A5 5 0 1 1");
  });
});

describe("search", () => {
  const column = (name: string, values: (string | null)[]) => ({ name, label: name, type: "TEXT", of: "DATABASE" as const, choices: [], values: values as string[] });
  const { rows } = new EstateTable({
    kind: "DATABASE",
    keys: ["A/stock", "STOCK-1/pumps"],
    columns: [column("owner", ["Lena Fischer", null]), column("application", [null, "Stores"])],
    unknown: {},
    contradicted: {},
    stale: {},
  });
  const crossings = [{ key: "X-0117", database: "A/stock" }] as CrossingView[];
  it("puts names before instances and finds people and crossings", () => {
    expect(find("stock", rows, crossings).map((hit) => hit.database)).toEqual(["A/stock", "STOCK-1/pumps"]);
    expect(find("fischer", rows, crossings)[0].database).toBe("A/stock");
    expect(find("x-0117", rows, crossings)[0].why).toBe("X-0117");
    expect(find("  ", rows, crossings)).toEqual([]);
  });
});
