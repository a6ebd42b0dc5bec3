/** Figures as they are said in their own unit: as fine as such a thing is told. */
import type { Schemas } from '../api/client';

type Unit = Schemas['BackSeries']['unit'];
const DECIMALS: Partial<Record<Unit, number>> = { mm: 3, deg: 1, N·m: 1 };

export const inUnit = (value: number, unit: Unit) =>
  `${value.toFixed(DECIMALS[unit] ?? 2)}${unit === 'deg' ? '°' : ` ${unit}`}`;

export type By = 'place' | 'gauge' | 'month';
export const BY: readonly By[] = ['place', 'gauge', 'month'];

export function groupsOf(series: Schemas['BackSeries'], by: By): Schemas['BackGroup'][] {
  if (by === 'place') return series.by_place;
  return by === 'gauge' ? series.by_gauge : series.by_month;
}
