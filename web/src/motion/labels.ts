/** Where the names of wheels go on the drawing: inside a large wheel, else below, above or beside it, clear of what is there. */
import type { Schemas } from '../api/client';

type Wheel = Schemas['DrawnWheel'];

export interface Label {
  id: string;
  /** What differs from its like stands on a line of its own where one line is too wide. */
  lines: string[];
  x: number;
  /** Downwards, as on screen. */
  y: number;
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const LETTER = 0.5;
/** How much of a name may lie over something, of an idler's or a pump's; its whole is 4. */
const CROWDED = 1.2;
const isTimed = (wheel: Wheel) => wheel.kind === 'crank' || wheel.kind === 'camshaft';

function letters(text: string): number {
  return text.length * LETTER;
}

function overlap(a: Box, b: Box): number {
  const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  return wide > 0 && high > 0 ? wide * high : 0;
}

function around(x: number, y: number, halfWide: number, halfHigh: number): Box {
  return { left: x - halfWide, right: x + halfWide, top: y - halfHigh, bottom: y + halfHigh };
}

/** Moved as little as brings it between two limits; a name wider than the drawing starts at its left edge. */
function within(x: number, least: number, most: number): number {
  return Math.max(least, Math.min(x, most));
}

/** Rows on one shaft lie on each other; the largest is named. */
function named(wheels: Wheel[]): Wheel[] {
  return wheels.filter((wheel, n) =>
    wheels.every(
      (other, at) =>
        other.shaft !== wheel.shaft ||
        other.radius_mm < wheel.radius_mm ||
        (other.radius_mm === wheel.radius_mm && at >= n),
    ),
  );
}

/** Places names one after another, each where it covers least of what is drawn already; `size` is the letters' height. */
export function placeLabels(
  { wheels, box: drawn, pointers }: Schemas['DriveDrawing'],
  size: number,
  laid: Schemas['DrawnRun'][] = [],
): Label[] {
  // what the timing hangs on is named first, and always
  const shown = named(wheels).sort((a, b) => Number(isTimed(b)) - Number(isTimed(a)));
  const taken = shown.map((wheel) => around(wheel.x_mm, -wheel.y_mm, wheel.radius_mm * 0.9, wheel.radius_mm * 0.9));
  taken.push(...pointers.map((pointer) => around(pointer.x_mm, -pointer.y_mm, size * 0.5, size * 0.7)));
  // how much slack a run has is said in one line, or in two
  taken.push(
    ...laid
      .filter((run) => run.words)
      .map((run) => around(run.label.x_mm, -run.label.y_mm + size * 0.5, size * LETTER * 8, size * 1.1)),
  );
  const labels: Label[] = [];
  const middle = shown.reduce((sum, wheel) => sum + wheel.x_mm, 0) / Math.max(1, shown.length);
  for (const [n, wheel] of shown.entries()) {
    const r = wheel.radius_mm;
    const [x, y] = [wheel.x_mm, -wheel.y_mm];
    const ground = x < middle ? x - r - drawn.left_mm : drawn.right_mm - x - r;
    const lines = letters(wheel.name) * size > ground - size * 0.6 ? wheel.name.split(/(?<=,) /) : [wheel.name];
    const half = (Math.max(...lines.map(letters)) * size) / 2;
    const tall = size * 0.6 * lines.length;
    const inside = half < r * 0.8 ? [{ x, y: y + r * 0.6 }] : [];
    const [right, left] = [
      { x: x + r + half + size * 0.6, y },
      { x: x - r - half - size * 0.6, y },
    ];
    const [below, above] = [
      { x, y: y + r + tall + size * 0.4 },
      { x, y: y - r - tall - size * 0.4 },
    ];
    // away from the others first: what stands at a side is named on that side
    const away = x - middle;
    const sides = away < 0 ? [left, right] : [right, left];
    const outside = [
      ...(Math.abs(away) > r / 2 ? [...sides, below, above] : [below, above, ...sides]),
      { x, y: y + r + tall + size * 1.6 },
      { x, y: y - r - tall - size * 1.6 },
    ].map((at) => ({ ...at, x: within(at.x, drawn.left_mm + half, drawn.right_mm - half) }));
    const cost = (at: { x: number; y: number }) => {
      const box = around(at.x, at.y, half, tall);
      const off = Math.max(0, -drawn.top_mm - box.top) + Math.max(0, box.bottom + drawn.bottom_mm);
      const own = inside.length > 0 ? n : -1;
      return off * size * 4 + taken.reduce((sum, other, m) => sum + (m === own ? 0 : overlap(box, other)), 0);
    };
    const spare = isTimed(wheel) ? Number.POSITIVE_INFINITY : half * tall * CROWDED;
    const best = [...inside, ...outside].reduce((a, b) => (cost(b) < cost(a) - 1e-6 ? b : a));
    if (cost(best) > spare) continue; // a name over others could not be read; it is said when the wheel is touched
    taken.push(around(best.x, best.y, half, tall));
    labels.push({ id: wheel.id, lines, ...best });
  }
  return labels;
}
