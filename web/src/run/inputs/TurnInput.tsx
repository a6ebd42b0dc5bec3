/** What is seen at a stop of turning over: they meet, off by so many teeth, a hard stop, springy. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './StepInput.module.css';

type Saw = Schemas['TurnSeen']['saw'];

const CHOICES: { saw: Saw; title: string; detail: string; foot: string }[] = [
  { saw: 'meets', title: 'They meet', detail: 'all of them', foot: 'Feel for a dead stop. Do not force it.' },
  { saw: 'off', title: 'Off', detail: 'by how many teeth?', foot: 'Which way, seen as the engine runs?' },
  {
    saw: 'hard_stop',
    title: 'Hard stop',
    detail: 'stop turning now',
    foot: 'Valves may be on the pistons. Nothing is turned until it is looked into.',
  },
  {
    saw: 'springy',
    title: 'Springy',
    detail: 'it gives and comes back',
    foot: 'Compression, a gearbox or a valve spring. Look, then go on.',
  },
];

export function TurnInput({ question, wrong, busy, answer }: InputProps<QuestionOf<'turn_seen'>>) {
  const [chosen, setChosen] = useState(0);
  const [teeth, setTeeth] = useState('');
  const [way, setWay] = useState<'ahead' | 'behind' | null>(null);
  const choice = CHOICES[chosen] ?? CHOICES[0];
  const isOff = choice?.saw === 'off';
  const record = () => {
    if (busy || !choice || question.blocked || question.status === 'done') return;
    const off = isOff ? { teeth: Number(teeth.replace(',', '.')) || null, way } : {};
    void answer(choice.title, {
      kind: 'turn_seen',
      step: question.step,
      stop: question.stop,
      saw: choice.saw,
      note: '',
      ...off,
    });
  };
  const digits = isOff
    ? []
    : CHOICES.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => setChosen(n) }));
  useKeys([...digits, { keys: ['Enter', 'PageDown', ' '], label: 'record', run: record }]);
  if (question.status === 'done') return null;
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="What is seen">
      <Choices choices={CHOICES} chosen={chosen} onChoose={setChosen} />
      {isOff && (
        <div className={classes.off}>
          <TextInput
            aria-label="Teeth off"
            placeholder="teeth"
            autoFocus
            data-figure
            inputMode="decimal"
            value={teeth}
            onChange={(event) => setTeeth(event.currentTarget.value.slice(0, 6))}
          />
          <fieldset className={classes.options} aria-label="Which way">
            {(['ahead', 'behind'] as const).map((one) => (
              <UnstyledButton key={one} aria-pressed={way === one} onClick={() => setWay(one)}>
                {one}
              </UnstyledButton>
            ))}
          </fieldset>
        </div>
      )}
      <div className={input.foot}>
        <span className={input.grow}>{question.blocked ? `Not yet: ${question.blocked}.` : choice?.foot}</span>
        <Button size="lg" onClick={record} loading={busy} disabled={Boolean(question.blocked)}>
          Record
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
