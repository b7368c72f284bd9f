import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { columns, fills } from "./waveColumns";

const wave: Schemas["WaveView"] = {
  key: "W01", name: "Pilot", start: "2026-12-05T20:00:00Z", end: "2026-12-06T04:00:00Z", maxDatabases: 10,
  maxBytes: 2 ** 42, open: true, databases: 12, bytes: 2 ** 41, longestOutageMinutes: 240, breaches: [],
};

it("shows a freeze between the waves it lies between", () => {
  const later = { ...wave, key: "W02", start: "2027-01-09T20:00:00Z" };
  const freeze = { name: "Year end", start: "2026-12-15T00:00:00Z", end: "2027-01-04T00:00:00Z" };
  expect(columns([later, wave], [freeze]).map((one) => (one.kind === "wave" ? one.wave.key : one.freeze.name))).toEqual(["W01", "Year end", "W02"]);
});

it("fills each limit by its share, above 1 where it is broken", () => {
  expect(fills(wave).map((fill) => fill.ratio)).toEqual([1.2, 0.5, 0.5]);
});
