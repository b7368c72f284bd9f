import { describe, expect, it } from "vitest";
import { ago, bytes, day, gib, initials, minutes, money, quantity, seconds, time, UNKNOWN } from "./format";

describe("quantities", () => {
  it("says unknown instead of 0", () => {
    expect(bytes(null)).toBe(UNKNOWN);
    expect(minutes(undefined)).toBe(UNKNOWN);
    expect(money(null)).toBe(UNKNOWN);
    expect(quantity("CPU", null)).toBe(UNKNOWN);
    expect(bytes(0)).toBe("0 MiB");
  });
  it("picks the unit that people read", () => {
    expect(bytes(4.63 * 2 ** 40)).toBe("4.63 TiB");
    expect(bytes(999 * 2 ** 30)).toBe("999 GiB");
    expect(bytes(1.5 * 2 ** 30)).toBe("1.5 GiB");
    expect(gib(1234.4 * 2 ** 30)).toBe("1,234");
    expect(minutes(45)).toBe("45 min");
    expect(minutes(150)).toBe("2.5 h");
    expect(minutes(1440)).toBe("1 day");
    expect(seconds(41)).toBe("41 s");
    expect(seconds(7200)).toBe("2 h");
    expect(money(-2310.4)).toBe("−£2,310");
    expect(quantity("LOG", 3 * 2 ** 20)).toBe("3.00 MiB/s");
  });
});

describe("times", () => {
  it("are shown in the programme's zone, over the clock change too", () => {
    expect(time("2026-06-30T23:30:00Z", "Europe/London")).toContain("00:30");
    expect(time("2026-11-24T22:00:00Z", "Europe/London", false)).toBe("22:00");
    expect(day("2026-06-30T23:30:00Z", "Europe/London")).toBe("Wed 1 Jul");
  });
  it("tell how long ago", () => {
    const now = Date.parse("2026-11-24T12:00:00Z");
    expect(ago("2026-11-24T11:59:30Z", now)).toBe("just now");
    expect(ago("2026-11-24T11:15:00Z", now)).toBe("45 min ago");
    expect(ago("2026-11-22T11:15:00Z", now)).toBe("2 days ago");
  });
});

it("takes initials from any name", () => {
  expect(initials("Ines Ward")).toBe("IW");
  expect(initials("")).toBe("");
});
