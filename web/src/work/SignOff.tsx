/** The lead signs the record. */
import { TextInput } from '@mantine/core';
import { Confirm } from '../ledger/Confirm';
import type { InputProps, QuestionOf } from '../ledger/contract';
import { useDraft } from '../ledger/draft';

const EMPTY = { remark: '' };

export function SignOff(props: InputProps<QuestionOf<'sign_off'>>) {
  const { engine } = props.bench;
  const [draft, change] = useDraft(`${engine.serial}.sign_off`, EMPTY);
  const remark = (
    <TextInput
      aria-label="Remark"
      placeholder="A remark, if you wish"
      value={draft.remark}
      onChange={(event) => change({ remark: event.currentTarget.value })}
    />
  );
  return (
    <Confirm
      {...props}
      what={engine.may_sign ? remark : 'The lead signs the record. Hand it over.'}
      button="Sign the record"
      may={engine.may_sign}
      entry={{ kind: 'sign_off', remark: draft.remark }}
    />
  );
}
