/** True TDC taken over as it was shown, with the readings it rests on. */
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';

export function ConfirmZero(props: InputProps<QuestionOf<'wheel_zero'>>) {
  const { zero_deg, method, rests_on } = props.question;
  const entry = zero_deg == null ? null : { kind: 'wheel_zero' as const, method, zero_deg, rests_on };
  return (
    <Confirm
      {...props}
      what={entry ? 'From now on the error is taken off every reading.' : 'Take the readings first.'}
      button="Take it over"
      entry={entry}
    />
  );
}
