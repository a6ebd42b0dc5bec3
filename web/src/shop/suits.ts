/** Which gauges of the shelf suit a size: those of the right sort whose range holds it come first. */
import type { Schemas } from '../api/client';

export type Gauge = Schemas['GaugeOut'];

const LENGTHS: Gauge['kind'][] = ['micrometer', 'bore', 'dial', 'feeler', 'caliper', 'strip'];

export function suiting(gauges: Gauge[], kinds: string[], sizeMm: number | null): Gauge[] {
  const holds = (gauge: Gauge) =>
    sizeMm === null ||
    ((gauge.least ?? 0) <= sizeMm && (gauge.most ?? Number.POSITIVE_INFINITY) >= sizeMm) ||
    !['micrometer', 'bore', 'caliper'].includes(gauge.kind);
  const rank = (gauge: Gauge) =>
    Number(!holds(gauge)) * 1000 +
    Number(gauge.overdue) * 500 +
    (kinds.length ? (kinds.indexOf(gauge.kind) + 100) % 100 : LENGTHS.indexOf(gauge.kind)) * 10 +
    gauge.resolution;
  return gauges
    .filter((gauge) => (kinds.length ? kinds.includes(gauge.kind) : LENGTHS.includes(gauge.kind)))
    .sort((a, b) => rank(a) - rank(b));
}
