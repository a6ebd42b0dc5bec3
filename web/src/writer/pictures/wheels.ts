/** Wheels by the number they have on the front: as they are passed, the crank's first. */
import type { Schemas } from '../../api/client';

type Front = Schemas['DriveDrawing'] | null | undefined;

/** One wheel of each shaft, the largest: wheels on one shaft lie on each other. */
export function oneOfEach(front: Schemas['DriveDrawing']): Schemas['DrawnWheel'][] {
  const shafts = [...new Set(front.wheels.map((wheel) => wheel.shaft))];
  return shafts.flatMap((shaft) => {
    const own = front.wheels.filter((wheel) => wheel.shaft === shaft);
    return own.reduce((a, b) => (b.radius_mm > a.radius_mm ? b : a), own[0] as (typeof own)[number]);
  });
}

/** The number of the shaft that something is about: its own id, or that of one of its wheels. */
export function numberOf(front: Front, focus: string): number | null {
  if (!front) return null;
  const shaft = front.wheels.find((wheel) => wheel.id === focus || wheel.shaft === focus)?.shaft;
  const n = oneOfEach(front).findIndex((wheel) => wheel.shaft === shaft);
  return n < 0 ? null : n + 1;
}
