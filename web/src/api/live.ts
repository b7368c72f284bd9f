import { ref } from "vue";
import { queryClient } from "./client";

export type LiveState = "connecting" | "live" | "lost";

/** What each topic of the server's feed makes stale. */
const STALE: Record<string, string[]> = {
  inventory: ["inventory", "sizing", "waves", "dependencies", "overview"],
  readings: ["inventory", "bundles", "overview"],
  bundles: ["bundles"],
  tokens: ["tokens"],
  servers: ["servers"],
  jobs: ["jobs"],
  counters: ["counters", "sizing", "overview"],
  sizing: ["sizing", "programme", "overview"],
  dependencies: ["dependencies", "waves", "overview"],
  waves: ["waves", "places", "overview"],
  crossings: ["crossings", "places", "waves", "overview"],
  programme: ["programme"],
};

export const liveState = ref<LiveState>("connecting");
let source: EventSource | undefined;

/** Keys of queries that a change makes stale; every change adds to the journal. */
export function staleKeys(topic: string): string[] {
  return [...(STALE[topic] ?? []), "journal"];
}

/** Follows the server's changes; the browser resumes with the last id after a lost connection. */
export function followLive(): void {
  source?.close();
  source = new EventSource("/api/v1/live");
  source.onopen = () => (liveState.value = "live");
  source.onerror = () => (liveState.value = "lost");
  source.addEventListener("change", (event) => {
    liveState.value = "live";
    const { topic } = JSON.parse((event as MessageEvent<string>).data) as { topic: string };
    if (topic === "everything") {
      void queryClient.invalidateQueries();
    } else if (topic !== "hello") {
      for (const key of staleKeys(topic)) {
        void queryClient.invalidateQueries({ queryKey: [key] });
      }
    }
  });
}

export function stopLive(): void {
  source?.close();
  source = undefined;
}
