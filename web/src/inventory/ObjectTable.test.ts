import { type VueWrapper } from "@vue/test-utils";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { PlaceView } from "../shared/queries";
import { testEstate } from "../test/estate";
import { answering, mounted, named, page } from "../test/mount";
import ObjectTable from "./ObjectTable.vue";
import { grouped } from "./rows";

// without a browser's layout no row would be in view; here all are
vi.mock("@tanstack/vue-virtual", async () => {
  const { computed, toValue } = await import("vue");
  return {
    useVirtualizer: (options: unknown) =>
      computed(() => {
        const { count } = toValue(options as { count: number });
        const items = Array.from({ length: count }, (_, index) => ({ index, key: index, start: index * 30, end: index * 30 + 30 }));
        return { getVirtualItems: () => items, getTotalSize: () => count * 30, scrollToIndex: () => {} };
      }),
  };
});

const table = testEstate(
  { "A/one": { size_bytes: "2199023255552", owner: "Ann" }, "A/two": { size_bytes: null, owner: "Bo" } },
  { contradicted: { "A/one": ["owner"] }, stale: { "A/two": ["owner"] } },
);
const places = new Map([["A/one", { database: "A/one", place: "PLANNED", wave: "W04" } as PlaceView]]);
const props = (more = {}) => ({
  table,
  lines: grouped(table.rows, "none", places),
  columns: ["size_bytes", "owner", "activity", "wave"],
  places,
  selected: new Set<string>(),
  subject: "",
  sortBy: "size_bytes",
  down: true,
  allSelected: false,
  ...more,
});
let wrapper: VueWrapper;
beforeEach(() => answering({ "GET /api/v1/counters/glances": [{ key: "A/one", days: [1, null, 2] }] }));
afterEach(() => wrapper.unmount());

describe("the table of objects", () => {
  it("tells sizes in the header's unit, exact ones on hover, and why a cell is unknown", async () => {
    wrapper = await mounted(ObjectTable, props());
    expect(page()).toContain("Size bytes, GiB ↓");
    const cells = [...document.querySelectorAll<HTMLElement>("tbody td.num")];
    expect(cells.map((cell) => cell.textContent?.trim())).toEqual(["2,048", "—"]);
    expect(cells[0].title).toBe("2,199,023,255,552 bytes");
    expect(cells[1].title).toBe("No source has told it");
    expect(named("td", "W04").className).not.toContain("unknown");
  });
  it("marks what sources disagree on and what is stale, in words too", async () => {
    wrapper = await mounted(ObjectTable, props());
    expect(named("td", "Ann").className).toContain("doubt");
    expect(named("td", "Ann").title).toContain("sources disagree");
    expect(named("td", "Bo").className).toContain("old");
    expect(named("td", "Bo").title).toContain("no source has told it lately");
  });
  it("says its order to a screen reader and sorts by a press", async () => {
    wrapper = await mounted(ObjectTable, props());
    expect(named("th", "Size bytes").getAttribute("aria-sort")).toBe("descending");
    expect(named("th", "Wave").getAttribute("aria-sort")).toBeNull();
    named("th button", "Owner").click();
    expect(wrapper.emitted("sort")).toEqual([["owner"]]);
  });
  it("selects without opening and opens by a row", async () => {
    wrapper = await mounted(ObjectTable, props());
    named<HTMLInputElement>("input", "Select A/two").click();
    expect(wrapper.emitted("select")).toEqual([["A/two"]]);
    expect(wrapper.emitted("open")).toBeUndefined();
    named("td", "Bo").click();
    expect(wrapper.emitted("open")).toEqual([["A/two"]]);
  });
});
