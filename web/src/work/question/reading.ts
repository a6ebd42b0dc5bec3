/** A reading as typed, turned into an entry. No arithmetic: the server reads the figures. */
import type { Schemas } from '../../api/client';
import type { LengthUnit } from '../../app/saying';
import type { EntryBody } from '../outbox';

type Side = Schemas['WheelSetting']['sides'][number];
export type Turned = Schemas['LiftReading']['turned'];

export interface ReadingDraft {
  wheel: string;
  side: Side | '';
  length: string;
  turned: NonNullable<Turned>;
}

export const TURNED: NonNullable<Turned>[] = ['running way', 'back', 'back, play taken up'];

/** The entry that answers a question with this reading; null for questions that want no reading. */
export function toEntry(question: Schemas['Question'], draft: ReadingDraft, unit: LengthUnit): EntryBody | null {
  const wheel = { text: draft.wheel, side: draft.side || null };
  const typed = { text: draft.length, unit };
  const common = { wheel, turned: draft.turned };
  if (question.kind === 'tdc_reading' && question.method) {
    const drop = question.field ? typed : null;
    return { kind: 'tdc_reading', method: question.method, place: question.place ?? null, drop, ...common };
  }
  const { camshaft, cylinder, valve, flank } = question;
  if (question.kind !== 'lift_reading' || !camshaft || !cylinder || !valve || !flank) return null;
  const asked = question.field?.asked_mm;
  const lift = asked != null ? { text: asked.toFixed(2), unit: 'mm' as const } : null;
  return { kind: 'lift_reading', camshaft, cylinder, valve, flank, lift, ...common };
}

/** The same dead centre's other side, or the same side of the other dead centre. */
export function otherSide(side: Side | '', change: 'before' | 'after' | 'centre', sides: Side[]): Side | '' {
  const [now = 'after', centre = 'TDC'] = side.split(' ');
  const wanted = change === 'centre' ? `${now} ${centre === 'TDC' ? 'BDC' : 'TDC'}` : `${change} ${centre}`;
  return sides.find((one) => one === wanted) ?? side;
}
