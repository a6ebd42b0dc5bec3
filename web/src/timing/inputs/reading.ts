/** A reading as typed, turned into an entry. No arithmetic: the server reads the figures. */
import type { Schemas } from '../../api/client';
import type { LengthUnit } from '../../app/saying';
import type { EntryBody, QuestionOf } from '../../ledger/contract';

type Side = Schemas['WheelSetting']['sides'][number];
export type Approach = NonNullable<Schemas['LiftReading']['approach']>;

export interface ReadingDraft {
  wheel: string;
  side: Side | '';
  length: string;
  approach: Approach;
}

export const APPROACHES: Approach[] = ['running way', 'back', 'back, play taken up'];

/** The entry that answers a question with this reading. */
export function toEntry(
  question: QuestionOf<'tdc_reading' | 'lift_reading'>,
  draft: ReadingDraft,
  unit: LengthUnit,
): EntryBody {
  const wheel = { text: draft.wheel, side: draft.side || null };
  const common = { wheel, approach: draft.approach };
  if (question.kind === 'tdc_reading') {
    const drop = question.field ? { text: draft.length, unit } : null;
    return { kind: 'tdc_reading', method: question.method, place: question.place ?? null, drop, ...common };
  }
  const { camshaft, cylinder, valve, flank } = question;
  const asked = question.field?.asked_mm;
  const typed = question.field ? { text: draft.length, unit } : null;
  const lift = asked != null ? { text: asked.toFixed(2), unit: 'mm' as const } : typed;
  return { kind: 'lift_reading', camshaft, cylinder, valve, flank, lift, ...common };
}

/** The same dead centre's other side, or the same side of the other dead centre. */
export function otherSide(side: Side | '', change: 'before' | 'after' | 'centre', sides: Side[]): Side | '' {
  const [now = 'after', centre = 'TDC'] = side.split(' ');
  const wanted = change === 'centre' ? `${now} ${centre === 'TDC' ? 'BDC' : 'TDC'}` : `${change} ${centre}`;
  return sides.find((one) => one === wanted) ?? side;
}
