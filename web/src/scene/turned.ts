/** Where shapes stand between two of the angles that the core has worked out, and which of a shape's lines say so. */
import type { Schemas } from '../api/client';

type Side = Pick<Schemas['SideTurning'], 'every_deg' | 'frames'>;

/** Middle or begin, and height, of each shape that moves, one after another. */
export function standingAt({ every_deg, frames }: Side, deg: number): number[] {
  const at = deg / every_deg;
  const whole = Math.floor(at);
  const frame = (n: number) => frames[((n % frames.length) + frames.length) % frames.length] ?? [];
  const [before, after] = [frame(whole), frame(whole + 1)];
  return before.map((value, n) => value + ((after[n] ?? value) - value) * (at - whole));
}

/** What is set on a drawn shape: a box and a ring by their middle, a line by its begin. */
export function placed(tag: string, y: number, h: number): [string, string][] {
  const set = (name: string, value: number): [string, string] => [name, value.toFixed(1)];
  if (tag === 'circle') return [set('cy', y)];
  if (tag === 'line') return [set('y1', y), set('y2', y + h)];
  return [set('y', y - h / 2), set('height', h)];
}
