/** Where two shafts must not stand together, the first across and the second up, both round: rock, ground nearer than wanted, and a way. */
import { useId, useMemo } from 'react';
import type { Schemas } from '../api/client';
import classes from './MapDrawing.module.css';

const CYCLE = 720;
/** Where everything is timed lies in the middle, not at an edge. */
const HALF = CYCLE / 2;

export interface Point {
  at: number;
  to: number;
}

interface MapDrawingProps {
  map: Schemas['ClearwayMap'];
  /** Of the shafts, as one says them. */
  names: [string, string];
  /** Places of both, one after another, not wrapped: the way. */
  way?: Point[];
  /** How many of the moves are done with. */
  here: Point;
  label: string;
}

/** Stretches of the second shaft, row after row over the first, as one path; the second grows upwards. */
function pathOf(rows: number[][], every: number): string {
  const parts: string[] = [];
  rows.forEach((row, n) => {
    for (let at = 0; at < row.length; at += 2) {
      const [begin = 0, end = 0] = [row[at], row[at + 1]];
      const x = (n * every + HALF) % CYCLE;
      const y = CYCLE - begin * every;
      for (const on of [0, HALF])
        parts.push(`M${x} ${y - HALF + on * 2}v${(begin - end) * every}h${every}v${(end - begin) * every}z`);
    }
  });
  return parts.join('');
}

const COPIES = [-2, -1, 0, 1, 2].flatMap((x) => [-2, -1, 0, 1, 2].map((y) => ({ x: x * CYCLE, y: y * CYCLE })));

export function MapDrawing({ map, names, way = [], here, label }: MapDrawingProps) {
  const hatch = useId();
  const rock = useMemo(() => pathOf(map.meets, map.every_deg), [map]);
  const near = useMemo(() => pathOf(map.wanted, map.every_deg), [map]);
  const line = way.map(({ at, to }) => `${at + HALF},${HALF - to}`).join(' ');
  const across = (deg: number) => (((deg + HALF) % CYCLE) + CYCLE) % CYCLE;
  const up = (deg: number) => CYCLE - across(deg);
  const end = way.at(-1);
  const isCrank = map.first === 'crank';
  return (
    <figure className={classes.map}>
      <svg viewBox={`-100 -14 ${CYCLE + 118} ${CYCLE + 60}`} role="img" aria-label={label}>
        <defs>
          <pattern id={hatch} width="12" height="12" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line y2="12" className={classes.hatch} />
          </pattern>
        </defs>
        <svg
          x="0"
          y="0"
          width={CYCLE}
          height={CYCLE}
          viewBox={`0 0 ${CYCLE} ${CYCLE}`}
          overflow="hidden"
          aria-hidden="true"
        >
          <rect width={CYCLE} height={CYCLE} className={classes.ground} />
          <path d={near} fill={`url(#${hatch})`} />
          <path d={rock} className={classes.rock} />
          {COPIES.map(({ x, y }) => (
            <g key={`${x} ${y}`} transform={`translate(${x} ${y})`}>
              {line && <polyline points={line} className={classes.way} />}
              {end && way.length > 1 && <circle cx={end.at + HALF} cy={HALF - end.to} r="9" className={classes.end} />}
            </g>
          ))}
          <circle cx={across(here.at)} cy={up(here.to)} r="16" className={classes.here} />
        </svg>
        <rect width={CYCLE} height={CYCLE} className={classes.frame} />
        {[-HALF, 0, HALF].map((deg) => (
          <g key={deg}>
            <text x={deg + HALF} y={CYCLE + 30} textAnchor={deg < 0 ? 'start' : deg > 0 ? 'end' : 'middle'}>
              {isCrank ? deg : deg / 2}°
            </text>
            <text
              x={-8}
              y={HALF - deg}
              textAnchor="end"
              dominantBaseline={deg > 0 ? 'hanging' : deg < 0 ? 'auto' : 'central'}
            >
              {deg / 2}°
            </text>
          </g>
        ))}
        <text x={CYCLE / 2 - 90} y={CYCLE + 30} textAnchor="end" className={classes.axis}>
          {names[0]}
        </text>
        <text
          x={-78}
          y={CYCLE / 2 + 190}
          textAnchor="middle"
          className={classes.axis}
          transform={`rotate(-90 -78 ${CYCLE / 2 + 190})`}
        >
          {names[1]}
        </text>
      </svg>
      <figcaption>
        <span>
          <i data-key="rock" /> {isCrank ? 'valve on piston' : 'valve on valve'}
        </span>
        <span>
          <i data-key="near" /> nearer than wanted
        </span>
        <span>
          <i data-key="here" /> here
        </span>
      </figcaption>
    </figure>
  );
}
