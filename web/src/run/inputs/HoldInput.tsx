/** A hold point: a lead who did not do the step looks, and signs. */
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { Signing } from '../../ledger/Signing';

export function HoldInput(props: InputProps<QuestionOf<'hold_point'>>) {
  const { question, bench } = props;
  const mine = question.done_by;
  return (
    <Signing
      {...props}
      draft={`${bench.engine.serial}.${question.key}`}
      may={bench.engine.may_sign && question.status !== 'done'}
      instead={question.status === 'done' ? 'Signed.' : `A lead who did not do it signs. ${mine} did it.`}
      button="Sign the hold point"
      entryOf={(remark) => ({ kind: 'hold_point', step: question.step, remark })}
    />
  );
}
