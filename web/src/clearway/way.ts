/** Which of the proposed ways is followed: chosen where it is drawn or where it is answered, for both. */

import type { Schemas } from '../api/client';
import type { QuestionOf } from '../ledger/contract';
import { useDraft } from '../ledger/draft';

export type MoveQuestion = QuestionOf<'clearway_move'>;

/** The way that is followed, and a step to the next; after each move the first is proposed anew. */
export function useWay(serial: string, question: MoveQuestion): [Schemas['MoveWay'] | undefined, () => void] {
  const [draft, change] = useDraft(`${serial}.${question.key}.way`, { of: '', n: 0 });
  const n = draft.of === question.title ? draft.n % Math.max(1, question.ways.length) : 0;
  return [question.ways[n], () => change({ of: question.title, n: (n + 1) % Math.max(1, question.ways.length) })];
}
