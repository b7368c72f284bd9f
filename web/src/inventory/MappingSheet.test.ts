import { flushPromises, type VueWrapper } from "@vue/test-utils";
import { afterEach, describe, expect, it } from "vitest";
import { answering, mounted, named, page, press, Refusal } from "../test/mount";
import MappingSheet from "./MappingSheet.vue";

const column = (header: string, target: string, unit = "", certainty = "LIKELY") => ({ header, target, unit, certainty, why: "", sample: ["x", "y"] });
const FILE = {
  id: 3,
  name: "list.xlsx",
  meanings: [
    { target: "instance", label: "instance" },
    { target: "database", label: "database" },
    { target: "size_bytes", label: "size", of: "DATABASE" },
    { target: "owner", label: "owner", of: "DATABASE" },
  ],
  sheets: [
    { sheet: "Servers", headerRow: 1, rows: 12, remembered: false, readable: true, notes: ["The encoding was taken as windows-1252."], columns: [column("Server", "instance"), column("DB", "database"), column("Size (GB)", "size_bytes", "GB"), column("Wombat", "", "", "NONE")] },
    { sheet: "Notes", headerRow: 0, rows: 2, remembered: false, readable: false, notes: [], columns: [column("a", "")] },
  ],
};
const POST = "POST /api/v1/inventory/files/3/readings";
let wrapper: VueWrapper;
afterEach(() => wrapper.unmount());

async function choose(label: string, value: string) {
  const select = named<HTMLSelectElement>("select", label);
  select.value = value;
  select.dispatchEvent(new Event("change"));
  await flushPromises();
}

describe("what the columns mean", () => {
  it("reads the sheets that name objects, as the person mapped them", async () => {
    const sent = answering({ [POST]: { id: 9 } });
    wrapper = await mounted(MappingSheet, { file: FILE });
    expect(page()).toContain("windows-1252");
    await choose("Meaning of Wombat", "owner");
    await choose("Unit of Size (GB)", "TB");
    await press("Compare with the inventory");
    expect(sent[0].body).toEqual({
      faulty: "REFUSED",
      sheets: [
        {
          sheet: "Servers",
          headerRow: 1,
          columns: [
            { header: "Server", target: "instance", unit: "" },
            { header: "DB", target: "database", unit: "" },
            { header: "Size (GB)", target: "size_bytes", unit: "TB" },
            { header: "Wombat", target: "owner", unit: "" },
          ],
        },
      ],
    });
    expect(wrapper.emitted("read")).toEqual([[9]]);
  });
  it("does not let two columns mean the same", async () => {
    answering({});
    wrapper = await mounted(MappingSheet, { file: FILE });
    await choose("Meaning of Wombat", "database");
    expect(page()).toContain("Two columns cannot both mean database.");
    expect(named<HTMLButtonElement>("button", "Compare with the inventory").disabled).toBe(true);
  });
  it("tells each problem with its row and column", async () => {
    answering({
      [POST]: new Refusal(422, {
        detail: "2 problems; nothing of the file was stored.",
        restReadable: true,
        problems: [
          { file: "list.xlsx", row: 70001, column: "Size (GB)", sentence: '"many" is not an amount.' },
          { file: "list.xlsx", row: 70002, sentence: "Give the server a name." },
        ],
      }),
    });
    wrapper = await mounted(MappingSheet, { file: FILE });
    await press("Compare with the inventory");
    expect(page()).toContain("nothing of the file was stored");
    expect(page()).toContain('row 70,001, Size (GB): "many" is not an amount.');
    expect(wrapper.emitted("read")).toBeUndefined();
    const sent = answering({ [POST]: { id: 9 } });
    await press("Leave out what is named here and read the rest");
    expect(sent[0].body).toMatchObject({ faulty: "LEFT_OUT" });
    expect(wrapper.emitted("read")).toEqual([[9]]);
  });
});
