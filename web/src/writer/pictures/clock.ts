/** Where a typed mark stands on the clock, to the half hour: read from the end of its line and written back there. */

const AT = /\s+at\s+(half past\s+)?(\d{1,2})(?::(\d{2}))?(?:\s*o['’]?clock)?\s*$/i;
const HALVES = 24;

/** In half hours from twelve; null where the line names no place. */
export function placeIn(line: string): number | null {
  const found = AT.exec(line);
  if (!found) return null;
  const half = found[1] || Number(found[3] ?? 0) >= 30 ? 1 : 0;
  return (2 * Number(found[2]) + half) % HALVES;
}

/** The line with another place, or with none. */
export function withPlace(line: string, halves: number | null): string {
  const bare = line.replace(AT, '').trimEnd();
  if (halves === null || bare === '') return bare;
  const at = ((halves % HALVES) + HALVES) % HALVES;
  return `${bare} at ${Math.floor(at / 2) || 12}${at % 2 ? ':30' : ''}`;
}

/** One half hour on or back; from no place at all to twelve. */
export function moved(line: string, by: number): string {
  const at = placeIn(line);
  return withPlace(line, at === null ? 0 : at + by);
}
