/** The share of time, 0 to 1, in which a falling duration curve of equal steps lies above a value. */
export function shareAbove(curve: number[], value: number): number {
  const first = curve.findIndex((point) => point <= value);
  if (first === -1) return 1;
  return curve.length < 2 ? 0 : first / (curve.length - 1);
}
