/** Sentences of the core, with lengths in the reader's unit and directions from the side he looks from. */
import type { Schemas } from '../api/client';

export type LengthUnit = Schemas['Person']['length_unit'];
export type SeenFrom = Schemas['Person']['seen_from'];
type Running = NonNullable<Schemas['EngineHead']['running_direction']>;

export interface Voice {
  unit: LengthUnit;
  factor: Schemas['UnitFactor'];
  seenFrom: SeenFrom;
  /** null while nobody knows which way the engine runs. */
  running: Running | null;
}

const OTHER: Record<Running, Running> = { clockwise: 'counter-clockwise', 'counter-clockwise': 'clockwise' };

/** Whether crank angles grow clockwise in a drawing seen from this side. */
export function growsClockwise(voice: Pick<Voice, 'seenFrom' | 'running'>): boolean {
  return (voice.running !== 'counter-clockwise') === (voice.seenFrom === 'front');
}

/** A length in the reader's unit. */
export function sayLength(mm: number, factor: Schemas['UnitFactor']): string {
  return `${(mm / factor.mm_per_unit).toFixed(factor.decimals)} ${factor.label}`;
}

/** A clearance: a decimal finer than other lengths. */
export function sayFine(mm: number, factor: Schemas['UnitFactor']): string {
  return `${(mm / factor.mm_per_unit).toFixed(factor.decimals + 1)} ${factor.label}`;
}

/** A clock position, seen from this side, to the nearest half hour. */
export function sayClock(deg: number, seenFrom: SeenFrom): string {
  const halves = Math.round((seenFrom === 'front' ? deg : 360 - deg) / 15) % 24;
  const hour = Math.floor(halves / 2) || 12;
  return halves % 2 ? `half past ${hour}` : `${hour} o'clock`;
}

/** The tokens of the core's sentences, each heard by this reader; a test keeps the names those of the core. */
const TOKENS = {
  mm: (value: string, voice: Voice) => sayLength(Number(value), voice.factor),
  fine: (value: string, voice: Voice) => sayFine(Number(value), voice.factor),
  clock: (value: string, voice: Voice) => sayClock(Number(value), voice.seenFrom),
  turn: (value: string, voice: Voice) => {
    if (voice.running === null)
      return value === 'against' ? 'against the way the engine runs' : 'the way the engine runs';
    const running: Running = growsClockwise(voice) ? 'clockwise' : 'counter-clockwise';
    return `${value === 'against' ? OTHER[running] : running} seen from the ${voice.seenFrom}`;
  },
  /** The same where it was said before from where one looks. */
  way: (value: string, voice: Voice): string => TOKENS.turn(value, voice).split(' seen from ')[0] ?? '',
};

const isToken = (name: string): name is keyof typeof TOKENS => name in TOKENS;

/** A sentence of the core as this reader sees it. */
export function say(sentence: string, voice: Voice): string {
  return sentence.replace(/\{(\w+):([^{}]+)\}/g, (whole, name: string, value: string) =>
    isToken(name) && (name === 'turn' || name === 'way' || !Number.isNaN(Number(value)))
      ? TOKENS[name](value, voice)
      : whole,
  );
}

/** Degrees to one decimal. */
export function sayDegrees(deg: number): string {
  return `${Math.abs(deg) < 0.05 ? '0.0' : deg.toFixed(1)}°`;
}

/** Work that is left. */
export function sayLeft(minutes: number): string {
  return minutes < 90 ? `${Math.round(minutes)} min left` : `${Math.round(minutes / 60)} h of work left`;
}
