/** What was pointed at on a photo: known distances, axes, teeth; and what is pointed at next. */
import type { Schemas } from '../../api/client';

export type Point = [number, number];

export interface Distance {
  points: Point[];
  mm: string;
}

export interface Pointed {
  known: Distance[];
  axes: Record<string, Point>;
  teeth: Record<string, Point[]>;
}

/** What the next point is of. */
export type Aim = { sort: 'known'; n: number } | { sort: 'axis' | 'teeth'; id: string };

export const NOTHING: Pointed = {
  known: [
    { points: [], mm: '' },
    { points: [], mm: '' },
  ],
  axes: {},
  teeth: {},
};

/** With one more point; a third of a distance begins it anew. */
export function pointAt(pointed: Pointed, aim: Aim, at: Point): Pointed {
  if (aim.sort === 'known')
    return distanceWith(pointed, aim.n, ({ points }) => (points.length < 2 ? [...points, at] : [at]));
  if (aim.sort === 'axis') return { ...pointed, axes: { ...pointed.axes, [aim.id]: at } };
  return { ...pointed, teeth: { ...pointed.teeth, [aim.id]: [...(pointed.teeth[aim.id] ?? []), at] } };
}

/** Without the last point of what is aimed at. */
export function takeBack(pointed: Pointed, aim: Aim): Pointed {
  if (aim.sort === 'known') return distanceWith(pointed, aim.n, ({ points }) => points.slice(0, -1));
  if (aim.sort === 'teeth')
    return { ...pointed, teeth: { ...pointed.teeth, [aim.id]: (pointed.teeth[aim.id] ?? []).slice(0, -1) } };
  const { [aim.id]: _, ...axes } = pointed.axes;
  return { ...pointed, axes };
}

function distanceWith(pointed: Pointed, nth: number, points: (one: Distance) => Point[]): Pointed {
  return { ...pointed, known: pointed.known.map((one, n) => (n === nth ? { ...one, points: points(one) } : one)) };
}

/** As the server reads it: distances that are whole, and every axis. */
export function marksOf(pointed: Pointed): Schemas['PhotoMarks'] {
  const known = pointed.known.flatMap(({ points: [a, b], mm }) => {
    const length = Number(mm.replace(',', '.'));
    return a && b && length > 0 ? [{ ax: a[0], ay: a[1], bx: b[0], by: b[1], mm: length }] : [];
  });
  return { known, axes: Object.entries(pointed.axes).map(([shaft, [x, y]]) => ({ shaft, x, y })) };
}

/** Whether two aims are the same. */
export function isAim(a: Aim, b: Aim): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
