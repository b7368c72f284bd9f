import { expect, it } from "vitest";
import { entryWords } from "./entryWords";

it("says from what to what in plain words", () => {
  expect(entryWords({ action: "copy", attribute: "stage", fromValue: "SETTING_UP", toValue: "COPYING" })).toBe("stage: copying, was setting up");
  expect(entryWords({ action: "placed", attribute: "wave", toValue: "W03" })).toBe("wave: W03");
  expect(entryWords({ action: "added" })).toBe("added");
});
