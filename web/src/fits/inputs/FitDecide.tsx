/** What is done about a place that is out or cannot be told: read again, another part, or the lead accepts it. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './fits.module.css';

const CHOICES = [
  {
    decision: 'read_again',
    title: 'Read it again',
    detail: 'with a finer gauge; what was read is put aside',
    ask: 'Why, and with what',
  },
  {
    decision: 'replaced',
    title: 'Another part goes in',
    detail: 'then it is read again',
    ask: 'Which part, from where',
  },
  {
    decision: 'accepted',
    title: 'Accepted by the lead',
    detail: 'a concession, with the reason',
    ask: 'Why may it stay?',
  },
] as const;

export function FitDecide({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'fit_decided'>>) {
  const [chosen, setChosen] = useState(0);
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, { reason: '' });
  const choice = CHOICES[chosen] ?? CHOICES[0];
  const record = async () => {
    if (busy) return;
    const { step, fit, place } = question;
    const entry = { kind: 'fit_decided' as const, step, fit, place, decision: choice.decision };
    const kind = await answer(choice.title, { ...entry, reason: draft.reason.trim() });
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
          placeholder={choice.ask}
          value={draft.reason}
          onChange={(event) => change({ reason: event.currentTarget.value.slice(0, 300) })}
          onKeyDown={(event) => event.key === 'Enter' && void record()}
        />
      </div>
      <div className={input.foot}>
        <span className={input.grow} />
        <Button size="lg" onClick={record} loading={busy}>
          {choice.title}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
