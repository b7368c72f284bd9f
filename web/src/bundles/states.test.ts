import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { collectorList } from "./collectorList";
import { first, missing, standing } from "./states";

const bundle = (over: Partial<Schemas["Bundle"]>): Schemas["Bundle"] => ({
  id: 1,
  name: "b.zip",
  site: "Bankside",
  person: "token Bankside",
  receivedAt: "2026-11-24T10:00:00Z",
  from: "2026-11-23T10:00:00Z",
  to: "2026-11-24T10:00:00Z",
  state: "TAKEN",
  samples: 0,
  servers: [],
  unknown: [],
  waiting: [],
  ...over,
});
const reading = { id: 4, source: "server A", at: "2026-11-24T10:00:00Z", person: "x" };

describe("a bundle's standing", () => {
  it("says how many readings wait before anything else", () => {
    expect(standing(bundle({ state: "WAITING", waiting: [reading, { ...reading, id: 5 }] }))).toEqual({ words: "2 readings wait", tone: "warn" });
    expect(standing(bundle({ waiting: [reading] })).words).toBe("1 reading waits");
    expect(standing(bundle({})).tone).toBe("good");
    expect(standing(bundle({ state: "FAILED" })).tone).toBe("bad");
  });
  it("names servers that did not answer and counters that have nowhere to go", () => {
    const lines = missing(
      bundle({
        servers: [
          { instance: "A", engine: "PostgreSQL", read: true, samples: 4 },
          { instance: "B", engine: "MariaDB", read: false, samples: 0, problem: "refuses" },
        ],
        unknown: ["A/1", "A/2", "A/3", "A/4", "A/5", "A/6"],
      }),
    );
    expect(lines).toEqual(["B: refuses", "Counters were left out of what the inventory does not know: A/1, A/2, A/3, A/4, A/5 and more."]);
    expect(missing(bundle({ state: "WAITING", unknown: ["A/1"] }))[0]).toContain("wait until");
    expect(standing(bundle({ state: "WAITING" })).words).toBe("counters wait");
  });
});

describe("what is shown of many bundles", () => {
  it("hides none that wants a decision", () => {
    const many = Array.from({ length: 30 }, (_, i) => bundle({ id: i, state: i === 20 ? "FAILED" : "TAKEN", waiting: i === 25 ? [reading] : [] }));
    expect(first(many).map((one) => one.id)).toEqual([0, 1, 20, 25]);
  });
});

describe("a collector's list", () => {
  it("keeps a site's name from breaking the YAML", () => {
    const yaml = collectorList('North: "Quay"', "https://transitum.example");
    expect(yaml).toContain('site: "North: \\"Quay\\""');
    expect(yaml).toContain('server: "https://transitum.example"');
    expect(yaml).not.toContain("password:");
  });
});
