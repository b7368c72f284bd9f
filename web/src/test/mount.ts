import { QueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import { flushPromises, mount, type VueWrapper } from "@vue/test-utils";
import { vi } from "vitest";
import type { Component } from "vue";
import { createMemoryHistory, createRouter } from "vue-router";
import { me } from "../team/session";
import { vuetify } from "../theme";

export interface Sent {
  method: string;
  path: string;
  body: unknown;
}

/** What the server answers, by "GET /path"; a function sees the request's body. */
export type Answers = Record<string, unknown | ((body: unknown) => unknown)>;

/** A problem that the server answers with its status. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly body: Record<string, unknown>,
  ) {}
}

/** Stands in for the server: answers by method and path, and keeps what was sent. */
export function answering(answers: Answers): Sent[] {
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (input: Request | string, init?: RequestInit) => {
    const request = input instanceof Request ? input : new Request(new URL(input, "http://transitum.test"), init);
    const path = new URL(request.url).pathname;
    const text = request.method === "GET" ? "" : await request.text();
    const body = text ? JSON.parse(text) : undefined;
    sent.push({ method: request.method, path, body });
    const found = answers[`${request.method} ${path}`];
    const answer = typeof found === "function" ? (found as (body: unknown) => unknown)(body) : found;
    const refused = answer instanceof Refusal;
    const status = refused ? answer.status : found === undefined ? 404 : 200;
    return new Response(JSON.stringify(refused ? answer.body : (answer ?? { detail: `nothing at ${path}` })), {
      status,
      headers: { "Content-Type": "application/json" },
    });
  });
  return sent;
}

/** Mounts a component as the application does, signed in as a person of a role. */
export async function mounted(
  component: Component,
  props: Record<string, unknown>,
  role: "LEAD" | "ENGINEER" | "OBSERVER" = "LEAD",
): Promise<VueWrapper> {
  me.value = { login: "ines", name: "Ines Ward", role };
  const router = createRouter({ history: createMemoryHistory(), routes: [{ path: "/:any(.*)*", component: { template: "<div />" } }] });
  const wrapper = mount(component, {
    props,
    attachTo: document.body,
    global: {
      // an overlay needs a browser's view; its content does not
      stubs: { VDialog: { template: "<div><slot /></div>" } },
      plugins: [vuetify, router, [VueQueryPlugin, { queryClient: new QueryClient({ defaultOptions: { queries: { retry: false } } }) }]],
    },
  });
  await flushPromises();
  await flushPromises();
  return wrapper;
}

/** The element that a person would name so, anywhere on the page. */
export function named<T extends HTMLElement = HTMLElement>(selector: string, words: string): T {
  const found = [...document.body.querySelectorAll<T>(selector)].find(
    (element) => element.textContent?.includes(words) || element.getAttribute("aria-label")?.includes(words),
  );
  if (!found) throw new Error(`no ${selector} "${words}" in ${document.body.textContent}`);
  return found;
}
export const page = () => document.body.textContent ?? "";

export async function press(words: string): Promise<void> {
  named("button", words).click();
  await flushPromises();
  await flushPromises();
}
