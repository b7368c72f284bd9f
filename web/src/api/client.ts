import { QueryClient } from "@tanstack/vue-query";
import createClient from "openapi-fetch";
import { patientFetch } from "./patientFetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** An RFC 9457 problem as the server sends it. */
export interface Problem {
  status: number;
  title?: string;
  detail?: string;
  yours?: string;
  theirs?: string;
  version?: number;
  /** Whether the file can be read without what its problems name. */
  restReadable?: boolean;
  problems?: { file: string; row?: number; column?: string; sentence: string }[];
}

/** A refused or failed request. */
export class RequestError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title ?? "The server did not answer.");
  }
}

export function cookie(name: string): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith(name + "="));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

export const api = createClient<paths>({ baseUrl: "/", fetch: (request) => patientFetch(request) });
api.use({
  onRequest({ request }) {
    if (request.method !== "GET") {
      request.headers.set("X-XSRF-TOKEN", cookie("XSRF-TOKEN"));
    }
    return request;
  },
});

/** The data of an answer, or the server's problem as an error. */
export async function data<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let got;
  try {
    got = await answer;
  } catch {
    throw new RequestError({ status: 0, detail: "The server was not reached. Look whether your change is there before you make it again." });
  }
  if (!got.response.ok) {
    throw new RequestError({ ...(got.error as Problem), status: got.response.status });
  }
  return got.data as T;
}

/** Sends a file as the body of a request, of any size. */
export async function sendFile<T>(method: "POST" | "PUT", path: string, file: File, query: Record<string, string> = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`${path}?${new URLSearchParams({ name: file.name, ...query })}`, {
      method,
      body: file,
      headers: { "X-XSRF-TOKEN": cookie("XSRF-TOKEN"), "Content-Type": "application/octet-stream" },
    });
  } catch {
    throw new RequestError({ status: 0, detail: "The server was not reached; nothing was stored." });
  }
  const body = await response.json().catch(() => ({}));
  if (!response.ok) {
    throw new RequestError({ ...body, status: response.status });
  }
  return body as T;
}

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      refetchOnWindowFocus: false,
      retry: (count, error) => count < 1 && !(error instanceof RequestError && error.problem.status > 0),
    },
  },
});
