import { expect, it } from "vitest";
import { staleKeys } from "../api/live";
import { factSource, factValue } from "./facts";

it("shows a fact with where it came from", () => {
  expect(factValue("BYTES", String(2 ** 40))).toBe("1.00 TiB");
  expect(factSource({ origin: "IMPORTED", source: "list.csv", place: "row 12", pinned: false })).toBe("imported, list.csv row 12");
  expect(factSource({ origin: "STATED", source: "ines", place: "", pinned: true, reason: "measured" })).toBe("stated by ines, pinned: measured");
  expect(factSource({ origin: "IMPORTED", source: "a.csv", place: "", pinned: false }, "Billing")).toContain("from the application Billing");
});

it("refreshes the journal with every change", () => {
  expect(staleKeys("crossings")).toEqual(expect.arrayContaining(["crossings", "places", "overview", "journal"]));
  expect(staleKeys("something new")).toEqual(["journal"]);
});
