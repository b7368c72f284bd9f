import { type VueWrapper } from "@vue/test-utils";
import { afterEach, describe, expect, it } from "vitest";
import { testEstate } from "../test/estate";
import { answering, mounted, page, press, Refusal } from "../test/mount";
import EditSheet from "./EditSheet.vue";

const table = testEstate({ "A/one": { owner: "Ann", size_bytes: "5" }, "A/two": { owner: null, size_bytes: null } });
const result = (key: string, attribute: string, more = {}) => ({ key, attribute, kept: false, ...more });
let wrapper: VueWrapper;
afterEach(() => wrapper.unmount());

describe("editing many at once", () => {
  it("shows what would change before anything is stored", async () => {
    const sent = answering({
      "POST /api/v1/inventory/edits": [
        result("A/one", "owner", { before: "Ann", after: "Bo" }),
        result("A/two", "owner", { after: "Bo", kept: true }),
      ],
    });
    wrapper = await mounted(EditSheet, { table, keys: [], text: "instance\tdatabase\towner\nA\tone\tBo\nA\ttwo\tBo" });
    await press("See what would change");
    expect(sent).toHaveLength(1);
    expect(sent[0].body).toMatchObject({ dryRun: true, edits: [{ key: "A/one", attribute: "owner", value: "Bo" }, { key: "A/two" }] });
    expect(page()).toContain("kept beside, the server's counts");
    await press("Store 2 values");
    expect(sent[1].body).toMatchObject({ dryRun: false });
    expect(wrapper.emitted("close")).toHaveLength(1);
  });
  it("does not let through what cannot be taken", async () => {
    answering({
      "POST /api/v1/inventory/edits": [
        result("A/one", "size_bytes", { before: "5", after: "6" }),
        result("A/nine", "size_bytes", { problem: "The inventory has no database of this name." }),
      ],
    });
    wrapper = await mounted(EditSheet, { table, keys: [], text: "instance\tdatabase\tsize_bytes\nA\tone\t6\nA\tnine\t6" });
    await press("See what would change");
    expect(page()).toContain("no database of this name");
    expect(page()).toContain("1 cannot be taken; mend or remove them");
    const store = [...document.querySelectorAll<HTMLButtonElement>("button")].find((one) => one.textContent?.includes("Store 1 value"));
    expect(store?.disabled).toBe(true);
  });
  it("says why a table cannot be read and what the server refused", async () => {
    answering({ "POST /api/v1/inventory/edits": new Refusal(422, { detail: "More than 20,000 values at once; edit them in parts." }) });
    wrapper = await mounted(EditSheet, { table, keys: [], text: "a\tb\n1\t2" });
    expect(page()).toContain("The first row must name instance and database");
    wrapper.unmount();
    wrapper = await mounted(EditSheet, { table, keys: [], text: "instance\tdatabase\towner\nA\tone\tBo" });
    await press("See what would change");
    expect(page()).toContain("More than 20,000 values at once");
  });
});
