import { bytes, exact } from "../shared/format";
import type { PlaceView } from "../shared/queries";
import { instanceWords, type EstateRow, type EstateTable, type ObjectKind } from "./estate";

/** The facets that narrow a table; several values of one facet are alternatives. */
export const FACETS: Record<ObjectKind, string[]> = {
  DATABASE: ["site", "engine", "version", "environment", "application", "owner", "criticality", "disposition", "host", "wave"],
  INSTANCE: ["engine", "version", "site", "host", "operating_system", "log_mode"],
  HOST: ["site", "operating_system"],
  APPLICATION: ["owner", "criticality"],
};
export type Filters = Record<string, string[]>;
export type Lens = "gaps" | "contradicted" | "stale";
export type Places = Map<string, PlaceView>;

export const NONE = "not known";

export interface Query {
  filters: Filters;
  lens?: Lens;
  /** Words that must all stand somewhere in what is known of an object. */
  text: string;
}
export interface TableGroup {
  kind: "group";
  key: string;
  words: string;
  count: number;
  size: string;
}
export interface TableRow {
  kind: "row";
  row: EstateRow;
}
export type TableLine = TableGroup | TableRow;

function facetValue(row: EstateRow, facet: string, places: Places): string {
  return (facet === "wave" ? places.get(row.key)?.wave : row.text(facet)) ?? NONE;
}

const LENSES: Record<Lens, (row: EstateRow) => boolean> = {
  gaps: (row) => row.unknown.length > 0,
  contradicted: (row) => row.contradicted.length > 0,
  stale: (row) => row.stale.length > 0,
};

/** Rows that match every facet, the lens and every word. */
export function filtered(rows: EstateRow[], query: Query, places: Places): EstateRow[] {
  const words = query.text.toLowerCase().split(/\s+/).filter(Boolean);
  const facets = Object.entries(query.filters).filter(([, values]) => values.length);
  if (!words.length && !facets.length && !query.lens) return rows;
  return rows.filter(
    (row) =>
      (!query.lens || LENSES[query.lens](row)) &&
      facets.every(([facet, values]) => values.includes(facetValue(row, facet, places))) &&
      words.every((word) => row.haystack.includes(word)),
  );
}

export function inLens(rows: EstateRow[], lens: Lens): number {
  return rows.reduce((count, row) => count + (LENSES[lens](row) ? 1 : 0), 0);
}

/** How many rows each value of a facet would leave, given everything else; most first. */
export function facetCounts(rows: EstateRow[], query: Query, facet: string, places: Places): { value: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const row of filtered(rows, { ...query, filters: { ...query.filters, [facet]: [] } }, places)) {
    const value = facetValue(row, facet, places);
    counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  return [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count || a.value.localeCompare(b.value));
}

/** Sorted by a column's ranks; unknown values go last, whatever the direction. */
export function sorted(rows: EstateRow[], table: EstateTable, column: string, down: boolean): EstateRow[] {
  const ranks = table.column(column)?.ranks;
  if (!ranks) return down ? [...rows].reverse() : rows;
  const sign = down ? -1 : 1;
  return [...rows].sort((a, b) => {
    const one = ranks[a.index];
    const other = ranks[b.index];
    if (one === other) return a.index - b.index;
    if (one < 0 || other < 0) return one < 0 ? 1 : -1;
    return sign * (one - other);
  });
}

/** Puts a heading before each group; rows keep their order within it. */
export function grouped(rows: EstateRow[], grouping: string, places: Places): TableLine[] {
  if (grouping === "none") return rows.map((row) => ({ kind: "row", row }));
  const groups = new Map<string, EstateRow[]>();
  for (const row of rows) {
    const key = grouping === "instance" ? row.instance : groupOf(row, grouping, places);
    const of = groups.get(key);
    if (of) of.push(row);
    else groups.set(key, [row]);
  }
  return [...groups]
    .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
    .flatMap(([key, of]): TableLine[] => [
      {
        kind: "group",
        key,
        words: grouping === "instance" ? instanceWords(of[0]) : "",
        count: of.length,
        size: sizeTogether(of),
      },
      ...of.map((row): TableRow => ({ kind: "row", row })),
    ]);
}

function groupOf(row: EstateRow, grouping: string, places: Places): string {
  const value = facetValue(row, grouping, places);
  return value === NONE ? `no ${grouping.replaceAll("_", " ")}` : value;
}

/** The size of all as far as it is known, in words that tell of how many databases it is not. */
export function sizeTogether(rows: EstateRow[]): string {
  let sum = 0;
  let known = false;
  let unsized = 0;
  for (const row of rows) {
    const size = row.number("size_bytes") ?? row.number("total_size_bytes");
    known ||= size != null;
    sum += size ?? 0;
    unsized += row.number("unsized") ?? (size == null ? 1 : 0);
  }
  if (!known) return unsized ? "size unknown" : bytes(0);
  return unsized ? `${bytes(sum)} and ${exact(unsized)} of unknown size` : bytes(sum);
}

/** A cell that a spreadsheet would run as a formula gets an apostrophe before it. */
export function defused(value: unknown): string {
  const text = value == null ? "" : String(value).replace(/[\t\r\n]+/g, " ");
  return /^[=+\-@]/.test(text) ? `'${text}` : text;
}

/** Tab-separated lines that a spreadsheet takes, with the columns' own names as header. */
export function asTable(rows: EstateRow[], kind: ObjectKind, columns: string[]): string {
  const keys = kind === "DATABASE" ? ["instance", "database"] : [kind.toLowerCase()];
  const lines = rows.map((row) => {
    const names = kind === "DATABASE" ? [row.instance, row.name] : [row.key];
    return [...names, ...columns.map((column) => row.cell(column))].map(defused).join("\t");
  });
  return [[...keys, ...columns].join("\t"), ...lines].join("\n");
}
