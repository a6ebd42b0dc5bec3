/** The limits as a band, every place in it with its uncertainty as a whisker. */
import type { Schemas } from '../api/client';
import { sayFine, type Voice } from '../app/saying';
import classes from './FitDrawing.module.css';

type Fit = Schemas['FitView'];

const WIDE = 460;
const HIGH = 132;
const LEFT = 46;
const TOP = 12;
const FOOT = 22;

export function Band({ fit, now, voice }: { fit: Fit; now: string | null; voice: Voice }) {
  const measured = fit.places.filter((place) => place.value_mm != null);
  const reach = (place: (typeof measured)[number]) => place.u_mm ?? 0;
  const ends = [
    ...[fit.low_mm, fit.high_mm].filter((limit) => limit != null),
    ...measured.flatMap((place) => [(place.value_mm ?? 0) - reach(place), (place.value_mm ?? 0) + reach(place)]),
  ];
  if (ends.length === 0) return null;
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
  const margin = (most - least || 0.01) * 0.12;
  const y = (mm: number) => TOP + (1 - (mm - least + margin) / (most - least + 2 * margin)) * (HIGH - TOP - FOOT);
  const step = (WIDE - LEFT) / Math.max(fit.places.length, 1);
  const x = (n: number) => LEFT + step * (n + 0.5);
  const limit = (mm: number) => (
    <g key={mm}>
      <line className={classes.limit} x1={LEFT} x2={WIDE} y1={y(mm)} y2={y(mm)} />
      <text className={classes.tick} x={LEFT - 6} y={y(mm)} dy="0.35em" textAnchor="end">
        {sayFine(mm, voice.factor).split(' ')[0]}
      </text>
    </g>
  );
  const few = fit.places.length <= 12;
  return (
    <svg
      className={classes.band}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={`${fit.name} against its limits`}
    >
      {fit.low_mm != null && fit.high_mm != null && (
        <rect
          className={classes.within}
          x={LEFT}
          width={WIDE - LEFT}
          y={y(fit.high_mm)}
          height={y(fit.low_mm) - y(fit.high_mm)}
        />
      )}
      {fit.low_mm != null && limit(fit.low_mm)}
      {fit.high_mm != null && limit(fit.high_mm)}
      {fit.places.map((place, n) => (
        <g key={place.id} className={classes.whisker} data-verdict={place.verdict ?? 'open'}>
          {place.value_mm != null && (
            <>
              <path
                d={`M ${x(n) - 5} ${y(place.value_mm - reach(place))} h 10 M ${x(n)} ${y(place.value_mm - reach(place))} V ${y(place.value_mm + reach(place))} M ${x(n) - 5} ${y(place.value_mm + reach(place))} h 10`}
              />
              <circle cx={x(n)} cy={y(place.value_mm)} r={5} />
            </>
          )}
          {few && (
            <text className={classes.tick} data-now={place.id === now} x={x(n)} y={HIGH - 5} textAnchor="middle">
              {place.label}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
