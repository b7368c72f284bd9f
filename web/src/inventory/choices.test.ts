import { expect, it } from "vitest";
import { idOf, keptChoices } from "./choices";

const change = (key: string, doubt?: string) => ({ kind: "DATABASE" as const, key, doubt: doubt ? { key: doubt, why: "" } : undefined });
const kept = (before: ReturnType<typeof change>[], now: ReturnType<typeof change>[], chosen: string[], same = {}) => {
  const choices = keptChoices(before, now, { chosen: new Set(chosen.map((key) => `DATABASE:${key}`)), same });
  return { chosen: [...choices.chosen], same: choices.same };
};

it("takes at first all that is not doubtful", () => {
  expect(kept([], [change("A/one"), change("A/two", "B/two")], [])).toEqual({ chosen: ["DATABASE:A/one"], same: {} });
});

it("keeps what was decided when the difference changes", () => {
  const before = [change("A/one"), change("A/two"), change("A/three", "B/three")];
  const now = [change("A/one"), change("A/two"), change("A/three", "B/three"), change("A/four")];
  expect(kept(before, now, ["A/two", "A/three"], { "DATABASE:A/three": "B/three" })).toEqual({
    chosen: ["DATABASE:A/two", "DATABASE:A/three", "DATABASE:A/four"],
    same: { "DATABASE:A/three": "B/three" },
  });
  expect(kept(before, [change("A/one")], ["A/one", "A/two"])).toEqual({ chosen: ["DATABASE:A/one"], same: {} });
});

it("leaves out what has become doubtful, or may be another by now", () => {
  expect(kept([change("A/one")], [change("A/one", "B/one")], ["A/one"]).chosen).toEqual([]);
  const moved = kept([change("A/one", "B/one")], [change("A/one", "C/one")], ["A/one"], { "DATABASE:A/one": "B/one" });
  expect(moved).toEqual({ chosen: [], same: {} });
  expect(idOf(change("A/one"))).toBe("DATABASE:A/one");
});
