import type { Schemas } from "../api/client";
import { bytes, exact, minutes } from "../shared/format";

/** A fact's canonical value as people read it. */
export function factValue(type: string, value: string): string {
  if (type === "BYTES") return bytes(Number(value));
  if (type === "MINUTES") return minutes(Number(value));
  // ports and the like read better without separators
  if (type === "INTEGER" && value.length > 5) return exact(Number(value));
  return value;
}

/** Where a fact came from: "imported, databases.csv row 12". */
export function factSource(
  fact: Pick<Schemas["ToldFact"], "origin" | "source" | "place" | "pinned" | "reason">,
  inheritedFrom?: string | null,
): string {
  const origin = { OBSERVED: "observed on", IMPORTED: "imported,", STATED: "stated by" }[fact.origin];
  const pinned = fact.pinned ? `, pinned: ${fact.reason}` : "";
  const from = inheritedFrom ? `from the application ${inheritedFrom}; ` : "";
  return `${from}${origin} ${fact.source}${fact.place ? " " + fact.place : ""}${pinned}`;
}

/** Why the value that counts does, after the inventory's rule. */
export function whyItCounts(fact: Pick<Schemas["AttributeFacts"], "counts" | "inheritedFrom">): string {
  if (!fact.counts) return "Nobody has told it yet";
  if (fact.inheritedFrom) return `It has no value of its own, so that of ${fact.inheritedFrom} counts`;
  if (fact.counts.pinned) return "It counts because it is pinned";
  return fact.counts.origin === "OBSERVED"
    ? "It counts because it was observed on the server"
    : "It counts because it is the latest that people or files told";
}
