/** What the Floor and the screen on the wall say of an engine alike: on whom it waits, whether a clock runs. */
import type { Schemas } from '../api/client';

type Row = Schemas['FloorRow'];

export function whom(row: Row): string {
  if (row.waits_on === 'lead') return 'the lead';
  if (row.waits_on === 'clock') return 'the clock';
  if (row.waits_on === 'aside') return `set aside: ${row.aside_because}`;
  if (row.waits_on === 'nobody') return '';
  return row.builder || 'whoever takes it';
}

/** Whether a working or curing time runs, or ran out unseen; one that is over by itself is not shown any more. */
export function hasClock(row: Row, now: number): row is Row & { clock_at: string } {
  return row.clock_at !== null && !(row.clock_clears && Date.parse(row.clock_at) < now);
}
