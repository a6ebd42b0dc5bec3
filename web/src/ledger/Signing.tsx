/** A signature with PIN or password once more. It goes to the server alone: it is never kept on this machine. */
import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ApiProblem, client, unwrap } from '../api/client';
import { Confirm } from './Confirm';
import type { EntryBody, InputProps, Refusal } from './contract';
import { useDraft } from './draft';
import classes from './Signing.module.css';

const EMPTY = { remark: '' };

interface SigningProps extends Pick<InputProps, 'bench' | 'wrong' | 'busy' | 'answer'> {
  /** Under which name the remark is kept while it is typed. */
  draft: string;
  may: boolean;
  /** What whoever may not sign is told. */
  instead: string;
  button: string;
  entryOf: (remark: string) => EntryBody;
}

export function Signing({ draft: name, may, instead, button, entryOf, ...props }: SigningProps) {
  const [draft, change] = useDraft(name, EMPTY);
  const [password, setPassword] = useState('');
  const [unproven, setUnproven] = useState<Refusal | null>(null);
  const { engine, entries } = props.bench;
  const sign = async (value: string, entry: EntryBody) => {
    try {
      const path = { serial: engine.serial };
      const body = { password, entry, seen: entries };
      const answered = await client.POST('/api/engines/{serial}/confirm', { params: { path }, body });
      if (!answered.response.ok) unwrap(answered);
    } catch (error) {
      setUnproven(refusal(error));
      return 'refused' as const;
    }
    setUnproven(null);
    setPassword('');
    return props.answer(value, entry);
  };
  const entry: EntryBody | null = password ? entryOf(draft.remark) : null;
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
          if (event.key === 'Enter' && entry && !props.busy) void sign(button, entry);
        }}
      />
    </div>
  );
  return (
    <Confirm
      {...props}
      answer={sign}
      wrong={unproven ?? props.wrong}
      what={may ? asked : instead}
      button={button}
      may={may}
      entry={entry}
    />
  );
}

function refusal(error: unknown): Refusal {
  if (error instanceof ApiProblem) return { sentence: error.message, field: error.field, wayOut: 'none' };
  return { sentence: 'The server does not answer; sign when it does.', field: '', wayOut: 'none' };
}
