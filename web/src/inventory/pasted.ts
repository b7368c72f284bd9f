import Papa from "papaparse";
import type { ObjectKind } from "./estate";

export interface PastedEdit {
  key: string;
  attribute: string;
  value: string;
}
export interface Pasted {
  edits: PastedEdit[];
  /** Why nothing of it can be taken; empty where something can. */
  problem: string;
}

/**
 * What a table pasted from a spreadsheet states: its first row names the object's key and the facts,
 * each further row is one object, an empty cell says nothing. An apostrophe that kept a cell from
 * running as a formula is taken off again.
 *
 * @param known names of the facts that can be stated
 */
export function pasted(text: string, kind: ObjectKind, known: string[]): Pasted {
  const rows = Papa.parse<string[]>(text.trim(), { delimiter: text.includes("\t") ? "\t" : "" }).data;
  const header = (rows[0] ?? []).map((name) => name.trim().toLowerCase().replaceAll(" ", "_"));
  const keys = kind === "DATABASE" ? ["instance", "database"] : [kind.toLowerCase()];
  const at = keys.map((key) => header.indexOf(key));
  if (at.some((index) => index < 0)) {
    return { edits: [], problem: `The first row must name ${keys.join(" and ")}, and then the facts. Copy as table gives such a table.` };
  }
  const columns = header.map((name, i) => ({ name, i })).filter(({ name }) => !keys.includes(name));
  const strange = columns.filter(({ name }) => name && !known.includes(name));
  if (strange.length) {
    return { edits: [], problem: `${strange.map(({ name }) => `"${name}"`).join(", ")} cannot be stated here. Facts are: ${known.join(", ")}.` };
  }
  const edits = rows.slice(1).flatMap((row) =>
    columns.flatMap(({ name, i }) => {
      const value = (row[i] ?? "").trim().replace(/^'(?=[=+\-@])/, "");
      return name && value ? [{ key: at.map((index) => (row[index] ?? "").trim()).join("/"), attribute: name, value }] : [];
    }),
  );
  return { edits, problem: edits.length ? "" : "No row below the header states anything." };
}
