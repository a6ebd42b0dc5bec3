/** The input that fits the question, and the sentence when an answer is refused. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import type { Voice } from '../../app/saying';
import { usePerson } from '../../app/session';
import { type EntryBody, type Outcome, useRecord } from '../outbox';
import { CamChoice } from './CamChoice';
import { Confirm } from './Confirm';
import { MethodChoice } from './MethodChoice';
import { ReadingInput } from './ReadingInput';
import { SetupForm } from './SetupForm';

export interface AnswerProps {
  bench: Schemas['Bench'];
  question: Schemas['Question'];
  voice: Voice;
  onDone: () => void;
}

/** What every input is given: the question and how to answer it. */
export interface InputProps extends AnswerProps {
  wrong: { sentence: string; field: string } | null;
  busy: boolean;
  answer: (value: string, entry: EntryBody) => Promise<Outcome['kind']>;
}

export function Answer(props: AnswerProps) {
  const { bench, question, onDone } = props;
  const { person } = usePerson();
  const record = useRecord(bench.engine.serial, person.username);
  const [wrong, setWrong] = useState<InputProps['wrong']>(null);
  const [busy, setBusy] = useState(false);
  const answer = async (value: string, entry: EntryBody) => {
    setBusy(true);
    const outcome = await record(question.key, question.title, value, entry);
    setBusy(false);
    setWrong(outcome.kind === 'refused' ? outcome : null);
    if (outcome.kind !== 'refused') onDone();
    return outcome.kind;
  };
  const given = { ...props, wrong, busy, answer };
  if (question.kind === 'setup') return <SetupForm {...given} />;
  if (question.kind === 'method') return <MethodChoice {...given} />;
  if (question.kind === 'cam') return <CamChoice {...given} />;
  if (question.kind === 'tdc_reading' || question.kind === 'lift_reading') return <ReadingInput {...given} />;
  return <Confirm {...given} />;
}

/** The refusal, beside the input it is about. */
export function Wrong({ wrong }: { wrong: InputProps['wrong'] }) {
  if (!wrong) return null;
  return (
    <p role="alert" id="wrong">
      {wrong.sentence}
    </p>
  );
}
