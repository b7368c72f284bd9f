import type { Schemas } from "../api/client";
import { bytes, minutes } from "../shared/format";

/** A fact's canonical value as people read it. */
export function factValue(type: string, value: string): string {
  if (type === "BYTES") return bytes(Number(value));
  if (type === "MINUTES") return minutes(Number(value));
  if (type === "INTEGER") return Number(value).toLocaleString("en-GB");
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
