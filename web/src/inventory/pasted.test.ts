import { describe, expect, it } from "vitest";
import { pasted } from "./pasted";
import { asTable } from "./rows";
import { testEstate } from "../test/estate";

const KNOWN = ["owner", "size_bytes", "note"];

describe("a pasted table", () => {
  it("states each filled cell and leaves empty ones alone", () => {
    const text = "Instance\tDatabase\tOwner\tSize bytes\nA\tone\tAnn\t\nA\ttwo\t\t5 GB\n";
    expect(pasted(text, "DATABASE", KNOWN)).toEqual({
      edits: [
        { key: "A/one", attribute: "owner", value: "Ann" },
        { key: "A/two", attribute: "size_bytes", value: "5 GB" },
      ],
      problem: "",
    });
  });
  it("takes back what copy as table gave, formulas and all", () => {
    const estate = testEstate({ "A/one": { owner: "=x", note: 'say "so", then' } });
    const { edits } = pasted(asTable(estate.rows, "DATABASE", ["owner", "note"]), "DATABASE", KNOWN);
    expect(edits.map((edit) => edit.value)).toEqual(["=x", 'say "so", then']);
  });
  it("reads quoted cells that hold line ends", () => {
    const { edits } = pasted('application\tnote\nBilling\t"two\nlines"\n', "APPLICATION", KNOWN);
    expect(edits).toEqual([{ key: "Billing", attribute: "note", value: "two\nlines" }]);
  });
  it("says what is missing or strange", () => {
    expect(pasted("one\ttwo\n1\t2", "DATABASE", KNOWN).problem).toContain("must name instance and database");
    expect(pasted("instance\tdatabase\tweight\nA\tb\t1", "DATABASE", KNOWN).problem).toContain('"weight" cannot be stated');
    expect(pasted("instance\tdatabase\towner\nA\tb\t", "DATABASE", KNOWN).problem).toContain("No row below");
    expect(pasted("", "DATABASE", KNOWN).problem).not.toBe("");
  });
});
