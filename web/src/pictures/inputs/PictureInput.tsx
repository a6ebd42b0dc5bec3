/** A picture that a step needs before it is done; the lead does without, and says why. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeys } from '../../app/keys';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { PictureDialog } from '../PictureDialog';

export function PictureInput({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'picture_needed'>>) {
  const [taking, setTaking] = useState(false);
  const [reason, setReason] = useState('');
  const { engine, state } = bench;
  const step = state.steps.find((one) => one.key === question.step);
  const take = () => {
    if (!question.blocked) setTaking(true);
  };
  const leave = () => {
    if (reason.trim() && !busy)
      void answer('without', { kind: 'picture_left', step: question.step, reason: reason.trim() });
  };
  useKeys([{ keys: ['Enter', 'PageDown'], label: 'take it', run: take }]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      <div className={input.confirm}>
        <span>{question.blocked || 'By the telephone’s camera, from a file, or pasted.'}</span>
        <Button size="lg" onClick={take} disabled={question.blocked !== ''}>
          Take a picture
        </Button>
      </div>
      {engine.may_sign && (
        <div className={input.confirm}>
          <TextInput
            aria-label="Why without a picture"
            placeholder="Done without one? Say why; it stays in the record."
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
            onKeyDown={(event) => event.key === 'Enter' && leave()}
          />
          <Button variant="default" onClick={leave} loading={busy}>
            Done without
          </Button>
        </div>
      )}
      <Wrong wrong={wrong} />
      {taking && <PictureDialog serial={engine.serial} step={step} opened={taking} onClose={() => setTaking(false)} />}
    </section>
  );
}
