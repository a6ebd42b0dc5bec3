/** The input that fits the question, and the sentence when an answer is refused; one that somebody may have taken all the same asks why. */
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import type { Voice } from '../app/saying';
import { usePerson } from '../app/session';
import type { EntryBody, InputProps, Kind, Question, QuestionOf, Refusal } from '../ledger/contract';
import { useRecord } from '../ledger/outbox';
import { Because } from './Because';
import { INPUTS } from './inputs';

export interface AnswerProps {
  bench: Schemas['Bench'];
  question: Question;
  voice: Voice;
  onDone: () => void;
}

interface ChosenProps<K extends Kind> extends InputProps<QuestionOf<K>> {
  kind: K;
}

function Chosen<K extends Kind>({ kind, ...props }: ChosenProps<K>) {
  const { Input } = INPUTS[kind];
  return <Input {...props} />;
}

export function Answer({ bench, question, voice, onDone }: AnswerProps) {
  const { person } = usePerson();
  const record = useRecord(bench.engine.serial, person.username);
  const [wrong, setWrong] = useState<Refusal | null>(null);
  const [tried, setTried] = useState<{ value: string; entry: EntryBody } | null>(null);
  const [busy, setBusy] = useState(false);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const answer = async (value: string, entry: EntryBody, because = '') => {
    setBusy(true);
    setTried({ value, entry });
    const outcome = await record(question.key, question.title, value, entry, because);
    setBusy(false);
    setWrong(outcome.kind === 'refused' ? outcome : null);
    // the bench may have gone on to the next question by itself, and somebody to another since
    if (outcome.kind !== 'refused' && here.current) onDone();
    return outcome.kind;
  };
  const asked: QuestionOf<Kind> = question;
  return (
    <div>
      <Chosen
        kind={question.kind}
        question={asked}
        {...{ bench, voice, wrong, busy }}
        answer={(v, e) => answer(v, e)}
      />
      {wrong && wrong.wayOut !== 'none' && tried && (
        <Because
          wayOut={wrong.wayOut}
          may={wrong.wayOut === 'reason' || bench.engine.may_sign}
          busy={busy}
          onRecord={(because) => void answer(tried.value, tried.entry, because)}
        />
      )}
    </div>
  );
}
