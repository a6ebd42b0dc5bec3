/** What can be told beside a step's own answer: something was met or heard, a shaft was turned by itself, a mark of one's own; the lead leaves it out. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { EntryBody, InputProps, QuestionOf } from '../../ledger/contract';
import { Undo } from '../../ledger/Undo';
import classes from './Besides.module.css';

type Props = InputProps<QuestionOf<'step_done'>>;
type Tells = 'trouble' | 'shaft' | 'mark';

const LABELS: Record<Tells, string> = {
  trouble: 'Dead stop, noise, stiff',
  shaft: 'A shaft turned by itself',
  mark: 'A mark of my own',
};

export function Besides(props: Props) {
  const { question } = props;
  const [tells, setTells] = useState<Tells | null>(null);
  const offered: Tells[] = [
    ...(question.moves ? (['trouble', 'shaft'] as const) : []),
    ...(question.does === 'lay' || question.does === 'as_found' || question.does === 'take_off'
      ? (['mark'] as const)
      : []),
  ];
  const tell = async (value: string, entry: EntryBody) => {
    if ((await props.answer(value, entry)) !== 'refused') setTells(null);
  };
  if (tells)
    return (
      <div className={classes.form}>
        {tells === 'trouble' && <TroubleForm step={question.step} busy={props.busy} onTell={tell} />}
        {tells === 'shaft' && (
          <ShaftForm shafts={props.bench.state.run?.shafts ?? []} busy={props.busy} onTell={tell} />
        )}
        {tells === 'mark' && <MarkForm busy={props.busy} onTell={tell} />}
        <Button variant="default" onClick={() => setTells(null)}>
          Nothing of it
        </Button>
      </div>
    );
  return (
    <div className={classes.row}>
      {offered.map((one) => (
        <UnstyledButton key={one} onClick={() => setTells(one)}>
          {LABELS[one]}
        </UnstyledButton>
      ))}
      <Undo {...props} />
    </div>
  );
}

interface FormProps {
  busy: boolean;
  onTell: (value: string, entry: EntryBody) => void;
}

const MET = [
  { value: 'dead_stop', label: 'A dead stop' },
  { value: 'noise', label: 'A noise' },
  { value: 'stiff', label: 'It is stiff' },
] as const;

function TroubleForm({ step, busy, onTell }: FormProps & { step: string }) {
  const [what, setWhat] = useState<(typeof MET)[number]['value'] | null>(null);
  const [note, setNote] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (what) onTell(what.replace('_', ' '), { kind: 'trouble', step, what, note: note.trim() });
  };
  return (
    <form onSubmit={submit}>
      <fieldset aria-label="What was met">
        {MET.map((one) => (
          <UnstyledButton key={one.value} aria-pressed={what === one.value} onClick={() => setWhat(one.value)}>
            {one.label}
          </UnstyledButton>
        ))}
      </fieldset>
      <TextInput
        aria-label="What was it like?"
        placeholder="Where, and what it was like"
        value={note}
        onChange={(event) => setNote(event.currentTarget.value)}
      />
      <Button type="submit" loading={busy} disabled={!what || (what !== 'dead_stop' && !note.trim())}>
        Record it
      </Button>
    </form>
  );
}

const THEN = [
  { value: 'stands', label: 'It stands there' },
  { value: 'snapped', label: 'It snapped round' },
  { value: 'dead_stop', label: 'Dead stop' },
] as const;

function ShaftForm({ shafts, busy, onTell }: FormProps & { shafts: { id: string; name: string }[] }) {
  const [shaft, setShaft] = useState<string | null>(null);
  const [howFar, setHowFar] = useState('');
  const [then, setThen] = useState<(typeof THEN)[number]['value'] | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (shaft && then)
      onTell('turned by itself', { kind: 'shaft_turned', shaft, how_far: howFar.trim(), then, note: '' });
  };
  return (
    <form onSubmit={submit}>
      <fieldset aria-label="Which shaft">
        {shafts.map((one) => (
          <UnstyledButton key={one.id} aria-pressed={shaft === one.id} onClick={() => setShaft(one.id)}>
            {one.name}
          </UnstyledButton>
        ))}
      </fieldset>
      <TextInput
        aria-label="How far, or to what"
        placeholder="How far, or to what"
        value={howFar}
        onChange={(event) => setHowFar(event.currentTarget.value)}
      />
      <fieldset aria-label="And then">
        {THEN.map((one) => (
          <UnstyledButton key={one.value} aria-pressed={then === one.value} onClick={() => setThen(one.value)}>
            {one.label}
          </UnstyledButton>
        ))}
      </fieldset>
      <Button type="submit" loading={busy} disabled={!shaft || !then}>
        Record it
      </Button>
    </form>
  );
}

function MarkForm({ busy, onTell }: FormProps) {
  const [name, setName] = useState('');
  const [meets, setMeets] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) onTell(name, { kind: 'own_mark', name: name.trim(), meets: meets.trim(), note: '' });
  };
  return (
    <form onSubmit={submit}>
      <TextInput
        aria-label="What it is"
        placeholder="Such as: white paint on the belt and the left cam"
        autoFocus
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <TextInput
        aria-label="What it meets"
        placeholder="What it meets"
        value={meets}
        onChange={(event) => setMeets(event.currentTarget.value)}
      />
      <Button type="submit" loading={busy} disabled={!name.trim()}>
        It is on
      </Button>
    </form>
  );
}
