/** What is done about a pull that stands apart: taken out and looked at, gone on with, or the lead accepts it. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './joints.module.css';

const CHOICES = [
  { decision: 'take_out', title: 'Take it out and look', detail: 'it is pulled again, or a new one' },
  { decision: 'go_on', title: 'Go on', detail: 'it stays a loose end; say why' },
  { decision: 'accepted', title: 'Accepted by the lead', detail: 'a concession, with the reason' },
] as const;

export function DecideChoice({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'pull_decided'>>) {
  const [chosen, setChosen] = useState(0);
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, { reason: '' });
  const choice = CHOICES[chosen] ?? CHOICES[0];
  const record = async () => {
    if (busy) return;
    const { step, stage, turn, fastener } = question;
    const entry = { kind: 'pull_decided' as const, step, stage, turn, fastener };
    const kind = await answer(choice.title, { ...entry, decision: choice.decision, reason: draft.reason.trim() });
    if (kind !== 'refused') forget();
  };
  useKeys([
    ...CHOICES.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => setChosen(n) })),
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="What is done about it">
      <Choices choices={CHOICES} chosen={chosen} onChoose={setChosen} />
      <div className={classes.reason}>
        <TextInput
          aria-label="Why"
          placeholder={choice.decision === 'take_out' ? 'A remark, if any' : 'Why may it stay?'}
          value={draft.reason}
          onChange={(event) => change({ reason: event.currentTarget.value.slice(0, 300) })}
          onKeyDown={(event) => event.key === 'Enter' && void record()}
        />
      </div>
      <div className={input.foot}>
        <span className={input.grow}>{question.sentence}</span>
        <Button size="lg" onClick={record} loading={busy}>
          {choice.title}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
