/** The kinds of gauges there are, in the order of their list, what many of one are called, and how their figures are said. */
import type { Schemas } from '../api/client';

type Gauge = Schemas['GaugeOut'];

export const CALLED: Record<Gauge['kind'], string> = {
  wrench: 'Wrenches',
  bar: 'Torque-limiting bars',
  angle: 'Angle gauges',
  wheel: 'Degree wheels',
  encoder: 'Encoders',
  dial: 'Dials',
  bore: 'Bore gauges',
  micrometer: 'Micrometers',
  caliper: 'Calipers',
  feeler: 'Feelers',
  strip: 'Plastic strips',
};

export const KINDS: Gauge['kind'][] = [
  'wrench',
  'bar',
  'angle',
  'wheel',
  'encoder',
  'dial',
  'bore',
  'micrometer',
  'caliper',
  'feeler',
  'strip',
];

/** A figure in a gauge's own unit. */
export const inUnit = (value: number, gauge: Pick<Gauge, 'unit'>) =>
  `${value}${gauge.unit === 'deg' ? '°' : ` ${gauge.unit}`}`;

/** How a gauge of steel grows with warmth [µm/m/K]: each that says nothing else. */
export const STEEL = 11.5;
