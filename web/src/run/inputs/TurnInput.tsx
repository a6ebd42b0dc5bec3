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
  // locks and pins that must go in again here, tried one by one before anybody says that all meets
  const [wentIn, setWentIn] = useState<string[]>([]);
  const toTry = choice?.saw === 'meets' ? question.goes_in.find((one) => !wentIn.includes(one.value)) : undefined;
  const record = () => {
    if (busy || !choice || question.blocked || question.status === 'done') return;
    if (toTry) return setWentIn([...wentIn, toTry.value]);
    const off = isOff ? { teeth: Number(teeth.replace(',', '.')) || null, way } : {};
    void answer(choice.title, {
      kind: 'turn_seen',
      step: question.step,
      stop: question.stop,
      saw: choice.saw,
      note: '',
      went_in: choice.saw === 'meets' ? wentIn : [],
      ...off,
    });
  };
  const digits = isOff
    ? []
    : CHOICES.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => setChosen(n) }));
  useKeys([...digits, { keys: ['Enter', 'PageDown', ' '], label: toTry ? 'it goes in' : 'record', run: record }]);
  if (question.status === 'done') return null;
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="What is seen">
      <Choices choices={CHOICES} chosen={chosen} onChoose={setChosen} />
      {choice?.saw === 'meets' && question.goes_in.length > 0 && (
        <ul className={classes.goesIn} aria-label="Goes in again">
          {question.goes_in.map((one) => (
            <li key={one.value} data-in={wentIn.includes(one.value)} data-now={one === toTry}>
              <span>
                {one.label}
                <small className={classes.place}>{one.detail}</small>
              </span>
              <b>{wentIn.includes(one.value) ? 'goes in' : one === toTry ? 'does it go in?' : 'then this'}</b>
            </li>
          ))}
        </ul>
      )}
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
        <span className={input.grow}>
          {question.blocked
            ? `Not yet: ${question.blocked}.`
            : toTry
              ? 'One that does not go in: that is off.'
              : choice?.foot}
        </span>
        <Button size="lg" onClick={record} loading={busy} disabled={Boolean(question.blocked)}>
          {toTry ? 'It goes in' : 'Record'}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
