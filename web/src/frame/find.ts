import type { EstateRow } from "../inventory/estate";
import type { CrossingView } from "../shared/queries";

export interface Hit {
  database: string;
  why: string;
}

/** Up to 12 databases whose name, host, application, owner or crossing holds every word; names first. */
export function find(text: string, databases: EstateRow[], crossings: CrossingView[]): Hit[] {
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (!wanted.length) return [];
  const hits: (Hit & { rank: number })[] = [];
  for (const crossing of crossings) {
    if (crossing.key.toLowerCase() === wanted[0]) {
      hits.push({ database: crossing.database, why: crossing.key, rank: 0 });
    }
  }
  for (const row of databases) {
    const name = row.key.toLowerCase();
    const facts = ["application", "owner", "host", "site", "engine"].map((column) => row.text(column)).filter(Boolean).join(", ");
    if (wanted.every((word) => (name + " " + facts.toLowerCase()).includes(word))) {
      const rank = row.name.toLowerCase().startsWith(wanted[0]) ? 1 : name.includes(wanted[0]) ? 2 : 3;
      hits.push({ database: row.key, why: facts, rank });
    }
  }
  return hits.sort((a, b) => a.rank - b.rank || a.database.localeCompare(b.database)).slice(0, 12);
}
