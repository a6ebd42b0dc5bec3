/** The piston stop, in or out: only the builder can see it. */
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';

export function ConfirmStop(props: InputProps<QuestionOf<'piston_stop'>>) {
  const { fitted } = props.question;
  return (
    <Confirm
      {...props}
      what={fitted ? 'It is on the list of loose ends until it is out.' : 'Only you can see that it is out.'}
      button={fitted ? 'The stop is in' : 'The stop is out'}
      entry={{ kind: 'piston_stop', fitted }}
    />
  );
}
