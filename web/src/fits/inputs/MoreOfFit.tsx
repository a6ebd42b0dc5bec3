/** A step that is done may still have a place read again, or another part: what stands on it is then open again. */
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { Wrong } from '../../ledger/Wrong';
import { useFitSheet } from '../api';
import classes from './fits.module.css';

export function MoreOfFit({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'fits_ready'>>) {
  const sheet = useFitSheet(bench, question);
  const [place, setPlace] = useState('');
  const [reason, setReason] = useState('');
  const places = sheet?.fit.places.map((one) => one.id) ?? [];
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const where = place || places[0] || '';
    const entry = { kind: 'fit_decided' as const, step: question.step, fit: question.fit, place: where };
    await answer(`${where} read again`, { ...entry, decision: 'read_again', reason: reason.trim() });
  };
  return (
    <form className={classes.more} onSubmit={submit}>
      <NativeSelect
        aria-label="Which place"
        data={places.map((one) => ({ value: one, label: one === 'it' ? question.title : one }))}
        value={place}
        onChange={(event) => setPlace(event.currentTarget.value)}
      />
      <TextInput
        aria-label="Why it is read again"
        placeholder="Why is it read again?"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value.slice(0, 300))}
      />
      <Button type="submit" variant="default" loading={busy} disabled={!reason.trim()}>
        Read it again
      </Button>
      <Wrong wrong={wrong} />
    </form>
  );
}
