const GIB = 2 ** 30;
const TIB = 2 ** 40;
// Made once: a formatter costs more than what it writes.
const WHOLE = new Intl.NumberFormat("en-GB", { maximumFractionDigits: 0 });
const TENTHS = new Intl.NumberFormat("en-GB", { maximumFractionDigits: 1 });
const EXACT = new Intl.NumberFormat("en-GB", { maximumFractionDigits: 3 });

/** What stands where a value is not known. */
export const UNKNOWN = "—";

/** A number as it is, with its thousands set apart. */
export function exact(value: number): string {
  return EXACT.format(value);
}

/** Bytes as TiB from 1,000 GiB up, else GiB or MiB. */
export function bytes(value: number | null | undefined): string {
  if (value == null) return UNKNOWN;
  if (value >= 1000 * GIB) return `${(value / TIB).toFixed(2)} TiB`;
  if (value >= 10 * GIB) return `${Math.round(value / GIB)} GiB`;
  if (value >= GIB) return `${(value / GIB).toFixed(1)} GiB`;
  return `${Math.round(value / 2 ** 20)} MiB`;
}

/** A number of GiB for a column whose header names the unit. */
export function gib(value: number | null | undefined): string {
  if (value == null) return UNKNOWN;
  const amount = value / GIB;
  return (amount < 10 ? TENTHS : WHOLE).format(amount);
}

export function minutes(value: number | null | undefined): string {
  if (value == null) return UNKNOWN;
  if (value < 120) return `${value} min`;
  if (value < 1440) return `${trim(value / 60)} h`;
  return value % 1440 === 0 && value === 1440 ? "1 day" : `${trim(value / 1440)} days`;
}

/** A span of seconds as people say it. */
export function seconds(value: number): string {
  if (value < 120) return `${value} s`;
  return minutes(Math.round(value / 60));
}

function trim(value: number): string {
  return TENTHS.format(value);
}

const SYMBOLS: Record<string, string> = { GBP: "£", EUR: "€", USD: "$" };

export function money(value: number | null | undefined, currency = "GBP"): string {
  if (value == null) return UNKNOWN;
  const symbol = SYMBOLS[currency] ?? `${currency} `;
  const sign = value < 0 ? "−" : "";
  return `${sign}${symbol}${WHOLE.format(Math.abs(value))}`;
}

/** A quantity of a dimension in the unit people read. */
export function quantity(dimension: string, value: number | null | undefined): string {
  if (value == null) return UNKNOWN;
  switch (dimension) {
    case "CPU":
      return value.toFixed(value < 10 ? 2 : 1);
    case "MEMORY":
    case "STORAGE":
      return bytes(value);
    case "THROUGHPUT":
    case "LOG":
      return `${(value / 2 ** 20).toFixed(value < 10 * 2 ** 20 ? 2 : 0)} MiB/s`;
    case "CONNECTIONS":
      return Math.round(value).toString();
    default:
      return `${WHOLE.format(value)}/s`;
  }
}

export function percent(ratio: number): string {
  return `${Math.round(ratio * 100)}%`;
}

/** A date and time in the programme's zone. */
export function time(iso: string | Date, zone: string, withDay = true): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    hour: "2-digit",
    minute: "2-digit",
    ...(withDay ? { weekday: "short", day: "numeric", month: "short" } : {}),
  })
    .format(new Date(iso))
    .replace(/,(?=[^,]*$)/, ",");
}

export function day(iso: string | Date, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "short", day: "numeric", month: "short" })
    .format(new Date(iso))
    .replace(",", "");
}

/** "5 min ago", "2 days ago". */
export function ago(iso: string, now: number): string {
  const past = Math.max(0, Math.round((now - Date.parse(iso)) / 1000));
  if (past < 60) return "just now";
  if (past < 3600) return `${Math.floor(past / 60)} min ago`;
  if (past < 86400) return `${Math.floor(past / 3600)} h ago`;
  const days = Math.floor(past / 86400);
  return days === 1 ? "yesterday" : `${days} days ago`;
}

/** SETTING_UP as "setting up". */
export function words(constant: string | null | undefined): string {
  return constant ? constant.toLowerCase().replaceAll("_", " ") : UNKNOWN;
}

/** The part of a database's key after its instance. */
export function shortName(key: string): string {
  return key.slice(key.indexOf("/") + 1);
}

/** The way from first letters to initials: "Ines Ward" to "IW". */
export function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((part) => part[0] ?? "")
    .slice(0, 2)
    .join("")
    .toUpperCase();
}
