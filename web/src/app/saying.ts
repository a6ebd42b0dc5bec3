/** Sentences of the core, with lengths in the reader's unit and directions from the side he looks from. */
import type { Schemas } from '../api/client';

export type LengthUnit = Schemas['Person']['length_unit'];
export type SeenFrom = Schemas['Person']['seen_from'];
type Running = Schemas['EngineHead']['running_direction'];

export interface Voice {
  unit: LengthUnit;
  factor: Schemas['UnitFactor'];
  seenFrom: SeenFrom;
  running: Running;
}

const OTHER: Record<Running, Running> = { clockwise: 'counter-clockwise', 'counter-clockwise': 'clockwise' };

/** Whether crank angles grow clockwise in a drawing seen from this side. */
export function growsClockwise(voice: Pick<Voice, 'seenFrom' | 'running'>): boolean {
  return (voice.running === 'clockwise') === (voice.seenFrom === 'front');
}

/** A length in the reader's unit. */
export function sayLength(mm: number, factor: Schemas['UnitFactor']): string {
  return `${(mm / factor.mm_per_unit).toFixed(factor.decimals)} ${factor.label}`;
}

/** A clock position, seen from this side, to the nearest half hour. */
export function sayClock(deg: number, seenFrom: SeenFrom): string {
  const halves = Math.round((seenFrom === 'front' ? deg : 360 - deg) / 15) % 24;
  const hour = Math.floor(halves / 2) || 12;
  return halves % 2 ? `half past ${hour}` : `${hour} o'clock`;
}

/** A sentence of the core as this reader sees it. */
export function say(sentence: string, voice: Voice): string {
  const way: Running = growsClockwise(voice) ? 'clockwise' : 'counter-clockwise';
  const seen = (turn: Running) => `${turn} seen from the ${voice.seenFrom}`;
  return sentence
    .replace(/\{mm:([\d.]+)\}/g, (_, mm: string) => sayLength(Number(mm), voice.factor))
    .replace(/\{clock:([\d.]+)\}/g, (_, deg: string) => sayClock(Number(deg), voice.seenFrom))
    .replace('{turn:running}', seen(way))
    .replace('{turn:against}', seen(OTHER[way]));
}

/** Degrees to one decimal. */
export function sayDegrees(deg: number): string {
  return `${Math.abs(deg) < 0.05 ? '0.0' : deg.toFixed(1)}°`;
}
