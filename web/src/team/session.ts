import { computed, ref } from "vue";
import { api, data, queryClient, type Schemas } from "../api/client";
import { followLive, stopLive } from "../api/live";

export type Person = Schemas["Person"];
export type Door = Schemas["Door"];

export const me = ref<Person>();
export const door = ref<Door>();
export const session = ref<"loading" | "in" | "out">("loading");

/** Leads and engineers change things; owners and observers read. */
export const mayWork = computed(() => me.value?.role === "LEAD" || me.value?.role === "ENGINEER");
export const isLead = computed(() => me.value?.role === "LEAD");

export async function openSession(): Promise<void> {
  const asked = data(api.GET("/api/v1/team/me")).catch(() => undefined);
  door.value = await data(api.GET("/auth/door"));
  const person = await asked;
  if (person) enter(person);
  else session.value = "out";
}

export function enter(person: Person): void {
  me.value = person;
  session.value = "in";
  followLive();
}

export async function signIn(login: string, password: string): Promise<void> {
  const person = await data(api.POST("/auth/sign-in", { body: { login, password } }));
  // signing in replaces the protection token; the next answer brings the new one
  await data(api.GET("/auth/door"));
  enter(person);
}

export async function setUp(body: Schemas["SetUp"]): Promise<void> {
  const person = await data(api.POST("/auth/set-up", { body }));
  door.value = await data(api.GET("/auth/door"));
  enter(person);
}

export async function signOut(): Promise<void> {
  await data(api.POST("/auth/sign-out"));
  stopLive();
  queryClient.clear();
  me.value = undefined;
  session.value = "out";
  door.value = await data(api.GET("/auth/door"));
}
