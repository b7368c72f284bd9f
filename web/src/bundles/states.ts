import type { Schemas } from "../api/client";

type Bundle = Schemas["Bundle"];

/** What is to be said of a bundle, and how loudly. */
export function standing(bundle: Bundle): { words: string; tone: "" | "warn" | "bad" | "good" } {
  const readings = bundle.waiting.length;
  switch (bundle.state) {
    case "RECEIVED":
    case "STORING":
      return { words: "being read", tone: "" };
    case "FAILED":
      return { words: "could not be read", tone: "bad" };
    case "DISCARDED":
      return { words: "dropped", tone: "" };
    default:
      if (readings > 0) return { words: `${readings} ${readings === 1 ? "reading waits" : "readings wait"}`, tone: "warn" };
      return bundle.state === "WAITING" ? { words: "counters wait", tone: "warn" } : { words: "taken", tone: "good" };
  }
}

/** What of a bundle is missing, a line each. */
export function missing(bundle: Bundle): string[] {
  const lines = bundle.servers.flatMap((server) => (server.problem ? [`${server.instance}: ${server.problem}`] : []));
  if (bundle.problem) lines.unshift(bundle.problem);
  const unknown = bundle.unknown.length;
  if (unknown > 0) {
    const some = bundle.unknown.slice(0, 5).join(", ") + (unknown > 5 ? " and more" : "");
    lines.push(
      bundle.state === "WAITING"
        ? `Counters wait until a reading is accepted that brings ${some}.`
        : `Counters were left out of what the inventory does not know: ${some}.`,
    );
  }
  return lines;
}

const SETTLED_SHOWN = 2;

/** Every bundle that wants a decision, and the last of those that want none. */
export function first(bundles: Bundle[]): Bundle[] {
  const settled = bundles.filter((bundle) => !wants(bundle)).slice(0, SETTLED_SHOWN);
  return bundles.filter((bundle) => wants(bundle) || settled.includes(bundle));
}

function wants(bundle: Bundle): boolean {
  return bundle.waiting.length > 0 || !["TAKEN", "DISCARDED"].includes(bundle.state);
}
