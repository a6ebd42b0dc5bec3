/** Which parts of a picture can be seen, what is said of each, and what is looked at closely on a small screen. */
import type { Schemas } from '../api/client';

export type Part = Schemas['ScenePart'];
export type Stands = Schemas['RunView']['stands'];

/** What an engine's pictures are made from: its revision, and what was found at the bench. */
export function knownOf({ engine, state }: Schemas['Bench']): string {
  return `${engine.revision} ${state.found?.count ?? 0}`;
}

export const SAID: Record<Stands[string], string> = {
  in: 'in',
  loose: 'finger tight',
  'to come': 'to come',
  undone: 'undone',
  held: 'held',
};

/** What a document says nothing of is left out, unless it is asked; what lies below something that is in cannot be seen. */
export function isShown(part: Part, stands: Stands, asked: string[]): boolean {
  if (asked.includes(part.id)) return true;
  const own = stands[part.id];
  if (own === undefined) return part.id === 'flywheel';
  return !(part.hidden_by ?? []).some((other) => ['in', 'loose'].includes(stands[other] ?? ''));
}

/** Everything in, but for what is on for a while, and covers and beads, which would hide the rest. */
export function built(parts: { id: string }[]): Stands {
  const seen = parts.filter((part) => !/^(cam covers|thing|bead):/.test(part.id));
  return Object.fromEntries(seen.map((part) => [part.id, 'in'] as const));
}

/** Whether a part is in, or goes in now: what is to come bears no numbers yet. */
export function isThere(part: Part, stands: Stands, asked: string[]): boolean {
  return asked.includes(part.id) || (stands[part.id] ?? 'to come') !== 'to come';
}

export function nameOf(part: Part, stands: Stands, asked: string[]): string {
  const own = stands[part.id];
  const where = part.where ? `, ${part.where}` : '';
  return `${part.name}${where}${own ? `: ${SAID[own]}` : ''}${asked.includes(part.id) ? ', this step' : ''}`;
}

/** The same engine looked at from the other side, from above by walking round it: the flywheel is to the left then. */
export function fromFlywheel(view: Schemas['SceneView']): Schemas['SceneView'] {
  const [middle, centre] = [2 * view.left + view.width, 2 * view.top + view.height];
  const isTurned = view.looking !== 'side';
  const turned = (shape: Schemas['Shape']): Schemas['Shape'] => ({
    ...shape,
    x: middle - shape.x,
    ...(isTurned ? { y: centre - shape.y } : {}),
    // a line goes from its one end, everything else has a middle
    ...(shape.form === 'line' ? { w: -(shape.w ?? 0), h: isTurned ? -(shape.h ?? 0) : (shape.h ?? 0) } : {}),
  });
  return { ...view, parts: view.parts.map((part) => ({ ...part, shapes: part.shapes.map(turned) })) };
}

export interface Room {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What a step is about, with some room around it, and at least half of the whole. */
export function zoomed(view: Schemas['SceneView'], shown: Part[], asked: string[]): Room {
  const own = shown.filter((part) => asked.includes(part.id)).flatMap((part) => part.shapes);
  if (own.length === 0) return view;
  const ends = own.map((shape) => endsOf(shape));
  const [left, right] = [Math.min(...ends.map((one) => one[0])), Math.max(...ends.map((one) => one[1]))];
  const [top, bottom] = [Math.min(...ends.map((one) => one[2])), Math.max(...ends.map((one) => one[3]))];
  const width = Math.min(view.width, Math.max(right - left, view.width / 2) * 1.12);
  const height = Math.min(view.height, Math.max(bottom - top, view.height / 2) * 1.12);
  return {
    left: within((left + right - width) / 2, view.left, view.left + view.width - width),
    top: within((top + bottom - height) / 2, view.top, view.top + view.height - height),
    width,
    height,
  };
}

const LETTER = 0.33; // half a letter's width, of the letters' height

/** Shapes without the words that would be cut off at an edge. */
export function inside(shapes: Schemas['Shape'][], room: Pick<Room, 'left' | 'width'>, size: number) {
  const half = ({ text = '' }: Schemas['Shape']) => text.length * LETTER * size;
  return shapes.filter(
    (shape) =>
      shape.form !== 'words' || (shape.x - half(shape) > room.left && shape.x + half(shape) < room.left + room.width),
  );
}

/** Left, right, top and bottom of a shape. */
function endsOf({ form, x, y, w = 0, h = 0 }: Schemas['Shape']): [number, number, number, number] {
  if (form === 'line') return [Math.min(x, x + w), Math.max(x, x + w), Math.min(y, y + h), Math.max(y, y + h)];
  const tall = form === 'ring' ? w : h;
  return [x - w / 2, x + w / 2, y - tall / 2, y + tall / 2];
}

function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(most, value));
}
