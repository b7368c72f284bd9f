import { expect, it } from "vitest";
import { shareAbove } from "./shareAbove";

it("tells for how much of the time a limit is exceeded", () => {
  const curve = [10, 8, 6, 4, 2];
  expect(shareAbove(curve, 5)).toBe(0.75);
  expect(shareAbove(curve, 10)).toBe(0);
  expect(shareAbove(curve, 1)).toBe(1);
});
