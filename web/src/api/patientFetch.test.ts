import { describe, expect, it, vi } from "vitest";
import { patientFetch, WAITS } from "./patientFetch";

const at = (method: string) => new Request("http://transitum.test/api/v1/x", { method, body: method === "GET" ? undefined : "{}" });
const none = async () => {};

describe("a patient fetch", () => {
  it("repeats a post with the same key after its connection broke", async () => {
    const keys: (string | null)[] = [];
    const send = vi.fn(async (input: RequestInfo | URL) => {
      keys.push((input as Request).headers.get("Idempotency-Key"));
      if (keys.length < 2) throw new TypeError("connection lost");
      return new Response("{}");
    });
    expect((await patientFetch(at("POST"), send, none)).status).toBe(200);
    expect(keys[0]).toMatch(/^[0-9a-f]{32}$/);
    expect(keys[1]).toBe(keys[0]);
  });
  it("gives each post a key of its own", async () => {
    const keys = new Set<string | null>();
    const send = async (input: RequestInfo | URL) => {
      keys.add((input as Request).headers.get("Idempotency-Key"));
      return new Response("{}");
    };
    await patientFetch(at("POST"), send, none);
    await patientFetch(at("POST"), send, none);
    expect(keys.size).toBe(2);
  });
  it("never repeats a put, whose version would be refused though it was stored", async () => {
    const send = vi.fn(async () => Promise.reject(new TypeError("connection lost")));
    await expect(patientFetch(at("PUT"), send, none)).rejects.toThrow("connection lost");
    expect(send).toHaveBeenCalledTimes(1);
  });
  it("gives up after the last wait", async () => {
    const send = vi.fn(async () => Promise.reject(new TypeError("gone")));
    await expect(patientFetch(at("GET"), send, none)).rejects.toThrow("gone");
    expect(send).toHaveBeenCalledTimes(WAITS.length + 1);
  });
  it("leaves an answer that refuses alone", async () => {
    const send = vi.fn(async () => new Response("{}", { status: 409 }));
    expect((await patientFetch(at("POST"), send, none)).status).toBe(409);
    expect(send).toHaveBeenCalledTimes(1);
  });
});
