/** Lines of "target = key" as a record; lines without both are left out. */
export function targetsOf(lines: string): Record<string, string> {
  return Object.fromEntries(
    lines.split("\n").flatMap((line) => {
      const [target, ...rest] = line.split("=");
      const key = rest.join("=").trim();
      return target.trim() && key ? [[target.trim(), key]] : [];
    }),
  );
}

export function targetLines(targets: Record<string, string>): string {
  return Object.entries(targets)
    .map(([target, key]) => `${target} = ${key}`)
    .join("\n");
}
