/** What a hard stop was: nothing is turned before it is said. */
import { Button, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './StepInput.module.css';

export function HardStopInput({ wrong, busy, answer }: InputProps<QuestionOf<'hard_stop'>>) {
  const [found, setFound] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (found.trim()) void answer(found, { kind: 'hard_stop', found: found.trim() });
  };
  return (
    <form className={input.input} data-wrong={wrong !== null} aria-label="Hard stop" onSubmit={submit}>
      <div className={classes.words}>
        <TextInput
          label="What was it?"
          autoFocus
          value={found}
          onChange={(event) => setFound(event.currentTarget.value)}
        />
      </div>
      <div className={input.foot}>
        <span className={input.grow}>Once it is said, turning over begins anew.</span>
        <Button type="submit" size="lg" loading={busy} disabled={!found.trim()}>
          Looked into
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </form>
  );
}
