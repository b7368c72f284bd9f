import { expect, it } from "vitest";
import { targetLines, targetsOf } from "./targets";

it("reads a target and its key from each line and writes them back", () => {
  const text = "10.0.0.7:9187 = HEAD-PG-03\n b:1=X=Y ";
  expect(targetsOf(text)).toEqual({ "10.0.0.7:9187": "HEAD-PG-03", "b:1": "X=Y" });
  expect(targetsOf(targetLines(targetsOf(text)))).toEqual(targetsOf(text));
  expect(targetsOf("nothing\n= x\ny =\n")).toEqual({});
});
