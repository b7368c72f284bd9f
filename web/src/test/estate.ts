import type { Schemas } from "../api/client";
import { EstateTable, type ObjectKind } from "../inventory/estate";

type Told = Record<string, string | null>;
const TYPES: Record<string, string> = { size_bytes: "BYTES", total_size_bytes: "BYTES", permitted_outage_minutes: "MINUTES", tables: "INTEGER" };

/** A small estate for tests: facts by key. */
export function testEstate(
  facts: Record<string, Told>,
  more: Partial<Schemas["InventoryTable"]> = {},
  kind: ObjectKind = "DATABASE",
): EstateTable {
  const keys = Object.keys(facts);
  const names = [...new Set(keys.flatMap((key) => Object.keys(facts[key])))];
  return new EstateTable({
    kind,
    keys,
    columns: names.map((name) => ({
      name,
      label: name.replaceAll("_", " "),
      type: TYPES[name] ?? "TEXT",
      of: kind,
      choices: [],
      values: keys.map((key) => facts[key][name] ?? null) as string[],
    })),
    unknown: {},
    contradicted: {},
    stale: {},
    ...more,
  });
}
