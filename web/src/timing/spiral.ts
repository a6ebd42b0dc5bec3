/** The spiral of two turns on which the 720 degrees of a cycle are drawn. Pure drawing; angles come from the server. */
import { lineRadial } from 'd3-shape';

export const INNER = 66;
export const OUTER = 160;
export const RIM = 200;
const STEP_DEG = 3;

/** Radius of the spiral at a crank angle, 0 to 720. */
export function reach(crankDeg: number): number {
  return INNER + ((OUTER - INNER) * crankDeg) / 720;
}

function radians(crankDeg: number, clockwise: boolean): number {
  return ((clockwise ? 1 : -1) * crankDeg * Math.PI) / 180;
}

/** Path of a piece of the spiral; `outside` moves it off the spiral. */
export function spiralPath(fromDeg: number, toDeg: number, clockwise: boolean, outside = 0): string {
  const count = Math.max(2, Math.ceil(Math.abs(toDeg - fromDeg) / STEP_DEG));
  const degrees = Array.from({ length: count + 1 }, (_, n) => fromDeg + ((toDeg - fromDeg) * n) / count);
  const line = lineRadial<number>()
    .angle((deg) => radians(deg, clockwise))
    .radius((deg) => reach(deg) + outside);
  return line(degrees) ?? '';
}

/** As `spiralPath`; a piece that runs over the cycle's end is drawn in two. */
export function roundPath(fromDeg: number, toDeg: number, clockwise: boolean, outside = 0): string {
  if (toDeg >= fromDeg) return spiralPath(fromDeg, toDeg, clockwise, outside);
  return spiralPath(fromDeg, 720, clockwise, outside) + spiralPath(0, toDeg, clockwise, outside);
}

/** Where a crank angle stands at a radius, TDC on top. */
export function placeAt(crankDeg: number, radius: number, clockwise: boolean): { x: number; y: number } {
  const turned = radians(crankDeg, clockwise);
  return { x: radius * Math.sin(turned), y: -radius * Math.cos(turned) };
}
