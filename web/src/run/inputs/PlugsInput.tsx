/** Whether the plugs are out and the stand is locked, where the run of work has no step for it. */
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';

export function PlugsInput(props: InputProps<QuestionOf<'plugs'>>) {
  return (
    <Confirm
      {...props}
      what="Look, then say so."
      button="Out and locked"
      entry={props.question.blocked ? null : { kind: 'plugs', out: true }}
    />
  );
}
