import type { ObjectKind } from "./estate";

const NOUNS: Record<ObjectKind, [one: string, more: string]> = {
  DATABASE: ["database", "databases"],
  INSTANCE: ["instance", "instances"],
  HOST: ["host", "hosts"],
  APPLICATION: ["application", "applications"],
};
/** What objects of a kind are called when there is one, else when there are more. */
export const noun = (kind: ObjectKind, count = 2) => NOUNS[kind][count === 1 ? 0 : 1];

/** Columns that are not facts: what the database did lately, and its wave. */
export const DRAWN = ["activity", "wave"];

export interface ColumnSet {
  name: string;
  columns: string[];
}

/** What people look at together. The first set of a kind is shown first. */
export const COLUMN_SETS: Record<ObjectKind, ColumnSet[]> = {
  DATABASE: [
    { name: "move", columns: ["size_bytes", "criticality", "permitted_outage_minutes", "owner", "disposition", "activity", "wave"] },
    { name: "server", columns: ["engine", "version", "support_end", "host", "site", "operating_system", "log_mode"] },
    { name: "objects", columns: ["tables", "tables_without_key", "views", "broken_views", "routines", "triggers", "events", "large_objects"] },
    { name: "text", columns: ["encoding", "collation", "compatibility", "extensions", "features", "storage_engines"] },
    { name: "people", columns: ["application", "owner", "environment", "criticality", "permitted_outage_minutes", "note"] },
  ],
  INSTANCE: [
    { name: "server", columns: ["engine", "version", "support_end", "host", "site", "cpu_cores", "memory_bytes", "databases", "total_size_bytes"] },
    { name: "settings", columns: ["log_mode", "log_retention", "replication", "time_zone", "max_connections", "page_checksums", "tls", "roles"] },
    { name: "plug-ins", columns: ["edition", "sql_mode", "lower_case_table_names", "plugins", "roles_with_all_rights"] },
  ],
  HOST: [{ name: "machine", columns: ["site", "operating_system", "byte_order", "cpu_cores", "cpu_index", "memory_bytes", "databases", "total_size_bytes"] }],
  APPLICATION: [{ name: "people", columns: ["owner", "criticality", "permitted_outage_minutes", "databases", "total_size_bytes", "note"] }],
};

export const GROUPINGS: Record<ObjectKind, string[]> = {
  DATABASE: ["instance", "application", "wave", "owner", "site", "none"],
  INSTANCE: ["none", "engine", "site"],
  HOST: ["none", "site"],
  APPLICATION: ["none", "owner"],
};

/** The header of a column with its unit; sizes are told in GiB there. */
export function header(name: string, label: string, type: string): string {
  if (name === "activity") return "CPU, 4 weeks";
  if (name === "wave") return "Wave";
  const capital = label.charAt(0).toUpperCase() + label.slice(1);
  return type === "BYTES" ? `${capital}, GiB` : capital;
}
