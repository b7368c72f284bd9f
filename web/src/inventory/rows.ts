import type { DatabaseRow, PlaceView } from "../shared/queries";

export type Grouping = "instance" | "application" | "wave" | "none";
export type SortColumn = "name" | "sizeBytes" | "criticality" | "permittedOutageMinutes" | "owner" | "disposition";

/** The facets that narrow the table; several values of one facet are alternatives. */
export const FACETS = ["site", "engine", "environment", "application", "owner", "criticality", "disposition"] as const;
export type Facet = (typeof FACETS)[number];
export type Filters = Partial<Record<Facet, string[]>>;

export const NONE = "not known";

export interface TableGroup {
  kind: "group";
  key: string;
  words: string;
  count: number;
  sizeBytes: number;
}
export interface TableRow {
  kind: "row";
  row: DatabaseRow;
}
export type TableLine = TableGroup | TableRow;

const CRITICALITY = ["critical", "high", "medium", "low"];

function facetValue(row: DatabaseRow, facet: Facet): string {
  return row[facet] ?? NONE;
}

/** Rows that match every facet and, if wanted, have a gap. */
export function filtered(rows: DatabaseRow[], filters: Filters, gapsOnly: boolean): DatabaseRow[] {
  return rows.filter(
    (row) =>
      (!gapsOnly || row.unknown.length > 0) &&
      FACETS.every((facet) => !filters[facet]?.length || filters[facet].includes(facetValue(row, facet))),
  );
}

/** How many rows each value of a facet would leave, given the other facets; most first. */
export function facetCounts(rows: DatabaseRow[], filters: Filters, facet: Facet): { value: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const row of filtered(rows, { ...filters, [facet]: undefined }, false)) {
    const value = facetValue(row, facet);
    counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  return [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count || a.value.localeCompare(b.value));
}

/** Unknown values go last, whatever the direction. */
export function sorted(rows: DatabaseRow[], column: SortColumn, down: boolean): DatabaseRow[] {
  const sign = down ? -1 : 1;
  const rank = (row: DatabaseRow) =>
    column === "criticality" && row.criticality ? CRITICALITY.indexOf(row.criticality) : row[column];
  return [...rows].sort((a, b) => {
    const one = rank(a);
    const other = rank(b);
    if (one == null || other == null) return one == null ? (other == null ? 0 : 1) : -1;
    if (typeof one === "number" && typeof other === "number") return sign * (one - other) || compareKeys(a, b);
    return sign * String(one).localeCompare(String(other)) || compareKeys(a, b);
  });
}

function compareKeys(a: DatabaseRow, b: DatabaseRow): number {
  return a.key < b.key ? -1 : a.key > b.key ? 1 : 0;
}

/** Puts a heading before each group; rows keep their order within it. */
export function grouped(rows: DatabaseRow[], grouping: Grouping, places: Map<string, PlaceView>): TableLine[] {
  if (grouping === "none") return rows.map((row) => ({ kind: "row", row }));
  const groups = new Map<string, DatabaseRow[]>();
  for (const row of rows) {
    const key =
      grouping === "instance"
        ? row.instance
        : grouping === "application"
          ? (row.application ?? "no application")
          : (places.get(row.key)?.wave ?? "no wave");
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
        words: grouping === "instance" ? (of[0].instanceWords ?? "") : "",
        count: of.length,
        sizeBytes: totalBytes(of),
      },
      ...of.map((row): TableRow => ({ kind: "row", row })),
    ]);
}

export function totalBytes(rows: DatabaseRow[]): number {
  return rows.reduce((sum, row) => sum + (row.sizeBytes ?? 0), 0);
}

/** Tab-separated lines that a spreadsheet takes; a cell that would start a formula is defused. */
export function asTable(rows: DatabaseRow[]): string {
  const safe = (value: unknown) => {
    const text = value == null ? "" : String(value).replace(/[\t\r\n]+/g, " ");
    return /^[=+\-@]/.test(text) ? `'${text}` : text;
  };
  const head = ["instance", "database", "engine", "version", "size_bytes", "criticality", "permitted_outage_minutes", "owner", "application", "disposition"];
  const lines = rows.map((row) =>
    [row.instance, row.name, row.engine, row.version, row.sizeBytes, row.criticality, row.permittedOutageMinutes, row.owner, row.application, row.disposition]
      .map(safe)
      .join("\t"),
  );
  return [head.join("\t"), ...lines].join("\n");
}
