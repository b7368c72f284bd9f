import type { Schemas } from "../api/client";

type Entry = Pick<Schemas["Entry"], "action" | "attribute" | "fromValue" | "toValue">;

const plain = (value: string) => (/^[A-Z_]+$/.test(value) ? value.toLowerCase().replaceAll("_", " ") : value);

/** One entry as a short sentence: "stage: copying, was setting up". */
export function entryWords(entry: Entry): string {
  if (!entry.attribute) return entry.action;
  const what = entry.attribute.replaceAll("_", " ");
  const to = entry.toValue == null ? "none" : plain(entry.toValue);
  return entry.fromValue == null ? `${what}: ${to}` : `${what}: ${to}, was ${plain(entry.fromValue)}`;
}
