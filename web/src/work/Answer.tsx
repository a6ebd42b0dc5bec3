/** The input that fits the question, and the sentence when an answer is refused; one that somebody may have taken all the same asks why. */
import type { Schemas } from '../api/client';
import type { Voice } from '../app/saying';
import type { InputProps, Kind, Question, QuestionOf } from '../ledger/contract';
import type { useAnswering } from './answering';
import { Because } from './Because';
import { inputOf } from './inputs';

export interface AnswerProps {
  bench: Schemas['Bench'];
  question: Question;
  voice: Voice;
  answering: ReturnType<typeof useAnswering>;
}

interface ChosenProps<K extends Kind> extends InputProps<QuestionOf<K>> {
  kind: K;
}

function Chosen<K extends Kind>({ kind, ...props }: ChosenProps<K>) {
  const { Input } = inputOf(kind);
  return <Input {...props} />;
}

export function Answer({ bench, question, voice, answering }: AnswerProps) {
  const { answer, underway, refused } = answering;
  const busy = underway.some((one) => one.question === question.key);
  const own = refused?.question === question.key ? refused : null;
  const asked: QuestionOf<Kind> = question;
  return (
    <div>
      <Chosen
        kind={question.kind}
        question={asked}
        wrong={own?.wrong ?? null}
        {...{ bench, voice, busy }}
        answer={(value, entry) => answer(question, value, entry)}
      />
      {own && own.wrong.wayOut !== 'none' && (
        <Because
          wayOut={own.wrong.wayOut}
          may={own.wrong.wayOut === 'reason' || bench.engine.may_sign}
          busy={busy}
          onRecord={(because) => void answer(question, own.tried.value, own.tried.entry, because)}
        />
      )}
    </div>
  );
}
