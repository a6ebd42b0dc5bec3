/** On whom an engine waits, in words. */
import type { Schemas } from '../api/client';

type Row = Schemas['FloorRow'];

export function whom(row: Row): string {
  if (row.waits_on === 'lead') return 'the lead';
  if (row.waits_on === 'clock') return 'the clock';
  if (row.waits_on === 'aside') return `set aside: ${row.aside_because}`;
  if (row.waits_on === 'nobody') return '';
  return row.builder || 'whoever takes it';
}
