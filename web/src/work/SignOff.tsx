/** The lead signs the record, with his PIN or password once more. It goes to the server alone: it is never kept on this machine. */
import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ApiProblem } from '../api/client';
import { useConfirm } from '../app/session';
import { Confirm } from '../ledger/Confirm';
import type { EntryBody, InputProps, QuestionOf, Refusal } from '../ledger/contract';
import { useDraft } from '../ledger/draft';
import classes from './SignOff.module.css';

const EMPTY = { remark: '' };
const BUTTON = 'Sign the record';

export function SignOff(props: InputProps<QuestionOf<'sign_off'>>) {
  const { engine } = props.bench;
  const [draft, change] = useDraft(`${engine.serial}.sign_off`, EMPTY);
  const [password, setPassword] = useState('');
  const [unproven, setUnproven] = useState<Refusal | null>(null);
  const confirm = useConfirm();
  const sign = async (value: string, entry: EntryBody) => {
    try {
      await confirm(password);
    } catch (error) {
      setUnproven(refusal(error));
      return 'refused' as const;
    }
    setUnproven(null);
    setPassword('');
    return props.answer(value, entry);
  };
  const entry: EntryBody | null = password ? { kind: 'sign_off', remark: draft.remark } : null;
  const asked = (
    <div className={classes.sign}>
      <TextInput
        label="Remark, if you wish"
        value={draft.remark}
        onChange={(event) => change({ remark: event.currentTarget.value })}
      />
      <PasswordInput
        label="Your PIN or password"
        autoFocus
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && entry && !props.busy) void sign(BUTTON, entry);
        }}
      />
    </div>
  );
  return (
    <Confirm
      {...props}
      answer={sign}
      wrong={unproven ?? props.wrong}
      what={engine.may_sign ? asked : 'The lead signs the record. Hand it over.'}
      button={BUTTON}
      may={engine.may_sign}
      entry={entry}
    />
  );
}

function refusal(error: unknown): Refusal {
  if (error instanceof ApiProblem) return { sentence: error.message, field: error.field, wayOut: 'none' };
  return { sentence: 'The server does not answer; sign when it does.', field: '', wayOut: 'none' };
}
