import { markRaw } from "vue";
import type { Schemas } from "../api/client";

export type ObjectKind = Schemas["InventoryTable"]["kind"];
export type Cell = string | number | null;

const NUMBERS = new Set(["BYTES", "MINUTES", "INTEGER", "DECIMAL"]);
const CRITICALITY = ["critical", "high", "medium", "low"];
const collator = new Intl.Collator("en-GB", { numeric: true });

/** One column of the estate with its cells typed once, when they are first asked for. */
export class EstateColumn {
  readonly name: string;
  readonly label: string;
  readonly type: string;
  readonly of: ObjectKind;
  readonly choices: string[];
  private readonly written: (string | null)[];
  private typed?: Cell[];
  private order?: Int32Array;

  constructor(column: Schemas["Column"]) {
    this.name = column.name;
    this.label = column.label;
    this.type = column.type;
    this.of = column.of;
    this.choices = column.choices;
    this.written = column.values as (string | null)[];
  }

  /** Whether a number stands in its cells. */
  get numeric(): boolean {
    return NUMBERS.has(this.type);
  }

  get cells(): Cell[] {
    this.typed ??= this.numeric
      ? this.written.map((value) => (value == null ? null : Number(value)))
      : this.written;
    return this.typed;
  }

  /**
   * Each row's place when sorted by this column, equal cells alike, unknown ones last. Worked out
   * once, so that sorting ten thousand rows compares whole numbers.
   */
  get ranks(): Int32Array {
    if (this.order) return this.order;
    const cells = this.cells;
    const distinct = [...new Set(cells)].filter((cell): cell is string | number => cell != null);
    if (this.numeric) (distinct as number[]).sort((a, b) => a - b);
    else if (this.name === "criticality") distinct.sort((a, b) => CRITICALITY.indexOf(String(a)) - CRITICALITY.indexOf(String(b)));
    else distinct.sort((a, b) => collator.compare(String(a), String(b)));
    const rank = new Map<Cell, number>(distinct.map((cell, i) => [cell, i]));
    this.order = Int32Array.from(cells, (cell) => (cell == null ? -1 : rank.get(cell)!));
    return this.order;
  }
}

/** One object of the estate; its cells are read from the table's columns. */
export class EstateRow {
  constructor(
    private readonly table: EstateTable,
    readonly index: number,
    readonly key: string,
  ) {}

  /** A database's instance; the key itself for every other kind. */
  get instance(): string {
    const slash = this.key.indexOf("/");
    return slash < 0 ? this.key : this.key.slice(0, slash);
  }
  /** A database's own name; the key itself for every other kind. */
  get name(): string {
    return this.key.slice(this.key.indexOf("/") + 1);
  }
  cell(column: string): Cell {
    return this.table.column(column)?.cells[this.index] ?? null;
  }
  text(column: string): string | null {
    const cell = this.cell(column);
    return cell == null ? null : String(cell);
  }
  number(column: string): number | null {
    const cell = this.cell(column);
    return typeof cell === "number" ? cell : null;
  }
  get unknown(): string[] {
    return this.table.unknown[this.key] ?? [];
  }
  get contradicted(): string[] {
    return this.table.contradicted[this.key] ?? [];
  }
  get stale(): string[] {
    return this.table.stale[this.key] ?? [];
  }
  /** Everything known of it in small letters, for finding. */
  get haystack(): string {
    return this.table.haystack(this.index);
  }
}

/** All objects of a kind. */
export class EstateTable {
  readonly kind: ObjectKind;
  readonly columns: EstateColumn[];
  readonly rows: EstateRow[];
  readonly unknown: Record<string, string[]>;
  readonly contradicted: Record<string, string[]>;
  readonly stale: Record<string, string[]>;
  private readonly byName: Map<string, EstateColumn>;
  private readonly byKey: Map<string, EstateRow>;
  private haystacks?: string[];

  constructor(table: Schemas["InventoryTable"]) {
    this.kind = table.kind;
    this.columns = table.columns.map((column) => new EstateColumn(column));
    this.byName = new Map(this.columns.map((column) => [column.name, column]));
    this.rows = table.keys.map((key, i) => new EstateRow(this, i, key));
    this.byKey = new Map(this.rows.map((row) => [row.key, row]));
    this.unknown = table.unknown;
    this.contradicted = table.contradicted;
    this.stale = table.stale;
    markRaw(this);
  }

  column(name: string): EstateColumn | undefined {
    return this.byName.get(name);
  }
  row(key: string): EstateRow | undefined {
    return this.byKey.get(key);
  }
  haystack(index: number): string {
    this.haystacks ??= this.rows.map((row) =>
      [row.key, ...this.columns.map((column) => column.cells[row.index] ?? "")].join("\n").toLowerCase(),
    );
    return this.haystacks[index];
  }
}

/** As in "PostgreSQL 11.22 on Debian 10, 16 cores, 128 GiB". */
export function instanceWords(row: EstateRow): string {
  const engine = [row.text("engine") ?? "engine unknown", row.text("version")].filter(Boolean).join(" ");
  const memory = row.number("memory_bytes");
  return [
    engine + (row.text("operating_system") ? ` on ${row.text("operating_system")}` : ""),
    row.number("cpu_cores") == null ? "" : `${row.number("cpu_cores")} cores`,
    memory == null ? "" : `${Math.round(memory / 2 ** 30)} GiB`,
  ]
    .filter(Boolean)
    .join(", ");
}
