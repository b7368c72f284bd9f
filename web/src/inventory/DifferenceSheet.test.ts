import { flushPromises, type VueWrapper } from "@vue/test-utils";
import { afterEach, describe, expect, it } from "vitest";
import { answering, mounted, named, page, press } from "../test/mount";
import DifferenceSheet from "./DifferenceSheet.vue";

const change = (type: string, key: string, more = {}) => ({ type, kind: "DATABASE", key, place: "row 2", attributes: [], ...more });
const READING = {
  id: 7,
  source: "list.csv",
  at: "2026-11-24T12:00:00Z",
  person: "omar",
  objects: 4,
  ties: 0,
  added: 2,
  changed: 1,
  gone: 0,
  doubtful: 1,
  unread: [],
  words: [{ attribute: "SIZE_BYTES", label: "size", type: "BYTES" }],
  changes: [
    change("NEW", "A/one"),
    change("NEW", "a1/two", { doubt: { key: "A/two", why: "their instances have like names" } }),
    change("CHANGED", "A/three", {
      attributes: [
        {
          attribute: "SIZE_BYTES",
          before: { id: 1, value: "1073741824", origin: "OBSERVED", source: "server A", place: "", at: "", seenAt: "", pinned: false },
          after: "2147483648",
          kept: true,
        },
      ],
    }),
  ],
};
const PATH = "/api/v1/inventory/readings/7";
let wrapper: VueWrapper;
afterEach(() => wrapper.unmount());

describe("a difference to accept", () => {
  it("leaves what is doubtful out until somebody says what it is", async () => {
    const sent = answering({ [`GET ${PATH}`]: READING, [`POST ${PATH}/accept`]: { changes: 2 }, "GET /api/v1/programme": { zone: "UTC" } });
    wrapper = await mounted(DifferenceSheet, { id: 7 });
    expect(page()).toContain("May be A/two: their instances have like names.");
    expect(page()).toContain("1 doubtful left out");
    await press("Accept 2 changes");
    expect(sent.find((one) => one.method === "POST")?.body).toEqual({ changes: ["DATABASE:A/one", "DATABASE:A/three"], same: {} });
  });
  it("sends the known key for the one that is the same under another name", async () => {
    const sent = answering({ [`GET ${PATH}`]: READING, [`POST ${PATH}/accept`]: { changes: 3 }, "GET /api/v1/programme": { zone: "UTC" } });
    wrapper = await mounted(DifferenceSheet, { id: 7 });
    const select = named<HTMLSelectElement>("select", "What is a1/two?");
    select.value = "same";
    select.dispatchEvent(new Event("change"));
    await flushPromises();
    expect(page()).not.toContain("doubtful left out");
    await press("Accept 3 changes");
    expect(sent.find((one) => one.method === "POST")?.body).toEqual({ same: { "DATABASE:a1/two": "A/two" } });
    expect(wrapper.emitted("close")).toHaveLength(1);
  });
  it("says that the server's own value stays", async () => {
    answering({ [`GET ${PATH}`]: READING, "GET /api/v1/programme": { zone: "UTC" } });
    wrapper = await mounted(DifferenceSheet, { id: 7 });
    expect(page()).toContain("size: 1.0 GiB → 2.0 GiB");
    expect(page()).toContain("observed, stays");
  });
  it("takes some of many: all that are shown at once, but what is doubtful one by one", async () => {
    const many = { ...READING, added: 500, changes: [...READING.changes, ...Array.from({ length: 500 }, (_, i) => change("NEW", `B/d${i}`))] };
    const sent = answering({ [`GET ${PATH}`]: many, [`POST ${PATH}/accept`]: { changes: 1 }, "GET /api/v1/programme": { zone: "UTC" } });
    wrapper = await mounted(DifferenceSheet, { id: 7 });
    expect(page()).toContain("Show 103 more of 503");
    named("input", "Take all that are shown").click();
    await flushPromises();
    expect(page()).toContain("Accept 0 changes");
    const find = named<HTMLInputElement>("input", "Find in these changes");
    find.value = "b/d499";
    find.dispatchEvent(new Event("input"));
    await flushPromises();
    named("input", "Take all that are shown").click();
    await flushPromises();
    await press("Accept 1 change");
    expect(sent.find((one) => one.method === "POST")?.body).toEqual({ changes: ["DATABASE:B/d499"], same: {} });
  });
  it("lets an observer look and change nothing", async () => {
    answering({ [`GET ${PATH}`]: READING, "GET /api/v1/programme": { zone: "UTC" } });
    wrapper = await mounted(DifferenceSheet, { id: 7 }, "OBSERVER");
    expect(page()).toContain("A/three");
    expect(page()).not.toContain("Accept");
    expect(named<HTMLSelectElement>("select", "What is").disabled).toBe(true);
  });
});
