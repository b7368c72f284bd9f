/** A list for a collector to start from, with this server's address filled in. */
export function collectorList(site: string, server: string): string {
  const name = site.trim() || "Bankside";
  return [
    `site: ${JSON.stringify(name)}`,
    "folder: collected",
    "disk_budget: 2 GB",
    "sampling: {every: 60 s, for: 14 days}",
    "servers:",
    "  - instance: BANK-PG-01",
    "    engine: PostgreSQL",
    "    host: db1.example",
    "    user: transitum",
    "    password_env: BANK_PG_01_PASSWORD",
    "push:",
    `  server: ${JSON.stringify(server)}`,
    "  token_env: TRANSITUM_TOKEN",
    "",
  ].join("\n");
}
