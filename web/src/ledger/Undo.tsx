/** Opens a step again, or leaves one out: both ask why, and say what follows. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { EntryBody, InputProps, Question } from './contract';
import classes from './Undo.module.css';
import { Wrong } from './Wrong';

interface UndoProps extends Pick<InputProps, 'bench' | 'wrong' | 'busy' | 'answer'> {
  question: Question & { step: string };
}

export function Undo({ bench, question, wrong, busy, answer }: UndoProps) {
  const [asks, setAsks] = useState(false);
  const [reason, setReason] = useState('');
  const isDone = question.status === 'done';
  const may = isDone || bench.engine.may_sign;
  const label = isDone ? 'Open it again' : 'Leave it out';
  if (!may) return null;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const kind = isDone ? ('step_opened' as const) : ('step_skipped' as const);
    const entry: EntryBody = { kind, step: question.step, reason: reason.trim() };
    if ((await answer(`${label}: ${reason}`, entry)) !== 'refused') setAsks(false);
  };
  if (!asks)
    return (
      <UnstyledButton className={classes.quiet} onClick={() => setAsks(true)}>
        {label}
      </UnstyledButton>
    );
  return (
    <form className={classes.undo} onSubmit={submit}>
      <TextInput
        aria-label="Why?"
        placeholder={isDone ? 'What was undone? What stands on it opens too.' : 'Why is it left out?'}
        autoFocus
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Button type="submit" variant="default" loading={busy} disabled={!reason.trim()}>
        {label}
      </Button>
      {isDone && <Wrong wrong={wrong} />}
    </form>
  );
}
