/** Waits between tries, in milliseconds. */
export const WAITS = [400, 1500];

/**
 * A fetch that tries again when the connection breaks. A post carries an Idempotency-Key, so that the
 * server does nothing twice when only its answer was lost; other changes are not repeated.
 *
 * @throws what `fetch` throws when the last try fails too
 */
export async function patientFetch(request: Request, send: typeof fetch = fetch, wait = pause): Promise<Response> {
  const repeatable = request.method === "GET" || request.method === "POST";
  if (request.method === "POST") {
    request.headers.set("Idempotency-Key", key());
  }
  for (let attempt = 0; ; attempt++) {
    try {
      return await send(request.clone());
    } catch (problem) {
      if (!repeatable || attempt >= WAITS.length) throw problem;
      await wait(WAITS[attempt]);
    }
  }
}

const pause = (milliseconds: number) => new Promise<void>((done) => setTimeout(done, milliseconds));

/** 128 random bits; `crypto.randomUUID` is absent on plain HTTP addresses. */
function key(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
