/** One thing to confirm: the zero taken over, the stop out, the record signed. Enter, Space or PageDown confirms. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import type { EntryBody } from '../outbox';
import { type InputProps, Wrong } from './Answer';
import classes from './Answer.module.css';

const WORDS: Partial<Record<Schemas['Question']['kind'], { what: string; button: string }>> = {
  wheel_zero: { what: 'From now on the error is taken off every reading.', button: 'Take it over' },
  stop_out: { what: 'Only you can see that it is out.', button: 'The stop is out' },
  sign_off: { what: 'Signed with your name and the time.', button: 'Sign the record' },
};

function toEntry(question: Schemas['Question'], remark: string): EntryBody | null {
  if (question.kind === 'stop_out') return { kind: 'decision', decision: { subject: 'stop_out' } };
  if (question.kind === 'sign_off') return { kind: 'decision', decision: { subject: 'sign_off', remark } };
  if (question.kind !== 'wheel_zero' || question.zero_deg == null || !question.method) return null;
  return { kind: 'wheel_zero', method: question.method, zero_deg: question.zero_deg };
}

export function Confirm({ bench, question, wrong, busy, answer }: InputProps) {
  const [remark, setRemark] = useState('');
  const entry = toEntry(question, remark);
  const words = WORDS[question.kind];
  const maySign = question.kind !== 'sign_off' || bench.engine.may_sign;
  const confirm = () => {
    if (entry && maySign && !busy) void answer(words?.button ?? '', entry);
  };
  useKeys([{ keys: ['Enter', ' ', 'PageDown'], label: 'confirm', run: confirm }]);
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Confirm">
      <div className={classes.confirm}>
        {question.kind === 'sign_off' && maySign ? (
          <TextInput
            aria-label="Remark"
            placeholder="A remark, if you wish"
            value={remark}
            onChange={(event) => setRemark(event.currentTarget.value)}
          />
        ) : (
          <span>
            {maySign ? (entry ? words?.what : 'Take the readings first.') : 'The lead signs the record. Hand it over.'}
          </span>
        )}
        {maySign && (
          <Button size="lg" onClick={confirm} loading={busy} disabled={!entry}>
            {words?.button}
          </Button>
        )}
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
