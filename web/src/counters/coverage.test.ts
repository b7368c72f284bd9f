import { describe, expect, it } from "vitest";
import { coverageWords, dayOf, strength } from "./coverage";

describe("coverage", () => {
  it("tells whole days from days in part", () => {
    expect(coverageWords([1, 1, 0.4, 0, 0.99])).toBe("covered 3 of 5 days, 1 in part");
    expect(coverageWords([0, 0])).toBe("no samples");
  });
  it("names days over the end of a month", () => {
    expect(dayOf("2026-10-30", 3)).toBe("2026-11-02");
  });
  it("never draws a covered day as faint as none", () => {
    expect(strength(0.01)).toBeGreaterThan(0.3);
    expect(strength(1)).toBe(1);
  });
});
