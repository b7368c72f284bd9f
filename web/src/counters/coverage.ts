/** How much of a strip is covered, in words: "covered 36 of 42 days, 2 in part". */
export function coverageWords(days: number[]): string {
  const whole = days.filter((share) => share > 0.95).length;
  const part = days.filter((share) => share > 0 && share <= 0.95).length;
  if (!whole && !part) return "no samples";
  return `covered ${whole} of ${days.length} days${part ? `, ${part} in part` : ""}`;
}

/** Opacity of a day's cell; an empty day keeps its own colour. */
export function strength(share: number): number {
  return share === 0 ? 1 : 0.35 + 0.65 * Math.min(1, share);
}

/** The ISO date of the day at a place of a strip. */
export function dayOf(from: string, index: number): string {
  return new Date(Date.parse(from) + index * 86_400_000).toISOString().slice(0, 10);
}
