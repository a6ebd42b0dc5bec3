/** What a question is about, for the drawings. */
import type { Question } from '../ledger/contract';

/** The camshaft a question asks about, if any. */
export function camAsked(question: Question | undefined): string | undefined {
  return question && 'camshaft' in question ? question.camshaft : undefined;
}
