/** Which of the run's questions are drawn otherwise than as the front of the engine. */
import type { Question, QuestionOf } from '../ledger/contract';

/** A chain or belt that is to be laid by counts. */
export function isLaid(question: Question | undefined): question is QuestionOf<'step_done'> {
  return (
    question?.kind === 'step_done' &&
    question.does === 'lay' &&
    question.status !== 'done' &&
    question.fields.length > 0
  );
}
