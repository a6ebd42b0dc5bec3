/** The crank turned to the next stop: Enter once it stands there. */
import { say } from '../../app/saying';
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';

export function LashStopInput(props: InputProps<QuestionOf<'lash_stop'>>) {
  const { question, voice } = props;
  const sees = question.sees ? say(question.sees, voice) : 'Plugs out, by hand, the running way.';
  const { step, stop } = question;
  return (
    <Confirm
      {...props}
      what={
        question.blocked
          ? `Not yet: ${say(question.blocked, voice)}.`
          : `${sees.replace(/\.?$/, '.')} To set: ${question.valves.join('; ')}.`
      }
      button="It stands there"
      entry={question.blocked ? null : { kind: 'lash_stop', step, stop }}
    />
  );
}
