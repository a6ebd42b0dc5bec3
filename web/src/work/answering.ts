/**
 * Answers on their way. The screen goes on to what most likely comes next at once, without waiting for the network; whoever is refused
 * is brought back, with the sentence and with everything he typed.
 */
import { useState } from 'react';
import type { Schemas } from '../api/client';
import type { EntryBody, Question, Refusal } from '../ledger/contract';
import { type Outcome, useRecord } from '../ledger/outbox';

export interface Sent {
  question: string;
  next: string | null;
  /** How many entries there are once it is in the ledger: until the bench shows as many, the screen stays ahead of it. */
  entries: number;
  /** Whether it waits on this machine: the screen is ahead of it as long as it does. */
  isKept?: boolean;
}

interface Refused {
  question: string;
  wrong: Refusal;
  tried: { value: string; entry: EntryBody };
}

export type AnswerIt = (
  question: Question,
  value: string,
  entry: EntryBody,
  because?: string,
) => Promise<Outcome['kind']>;

export function useAnswering(
  bench: Schemas['Bench'],
  by: string,
  waiting: string[],
  choose: (key: string | null) => void,
) {
  const record = useRecord(bench.engine.serial, by);
  const [all, setAll] = useState<Sent[]>([]);
  const [refused, setRefused] = useState<Refused | null>(null);
  const underway = all.filter((one) => bench.entries < one.entries && (!one.isKept || waiting.includes(one.question)));
  const answer: AnswerIt = async (question, value, entry, because = '') => {
    const own = {
      question: question.key,
      next: nextOf(bench.state, question, underway),
      entries: (underway.at(-1)?.entries ?? bench.entries) + 1,
    };
    setAll([...underway, own]);
    setRefused(null);
    choose('again' in question && question.again ? question.key : null);
    const outcome = await record(question.key, question.title, value, entry, because);
    // what was taken stays until the bench shows it; what waits, as long as it is known what follows; what was not is shown where it was asked
    if (outcome.kind === 'kept')
      setAll((now) => now.flatMap((one) => (one !== own ? [one] : own.next ? [{ ...own, isKept: true }] : [])));
    if (outcome.kind === 'refused') {
      setAll([]);
      setRefused({ question: question.key, wrong: outcome, tried: { value, entry } });
      choose(question.key);
    }
    return outcome.kind;
  };
  return { answer, underway, refused };
}

/** Kinds that come in rows: the next of the same kind follows. */
const ONE_AFTER_ANOTHER: Question['kind'][] = ['lift_reading', 'pull', 'fit_reading', 'lash_reading'];

/** Whether an answer that waits may be followed by another of its kind: a second reading of the same, never a step done twice. */
export const mayBeAnsweredAgain = (question: Question) =>
  ('again' in question && question.again) || ONE_AFTER_ANOTHER.includes(question.kind);

/** What most likely comes next: of readings and pulls the next one open in the same step, of steps what the server said. */
function nextOf(state: Schemas['BenchState'], question: Question, underway: Sent[]): string | null {
  if (question.kind === 'step_done') return question.next_step;
  if ('again' in question && question.again) return null;
  if (!ONE_AFTER_ANOTHER.includes(question.kind)) return null;
  const step = state.steps.find((one) => one.questions.some((each) => each.key === question.key));
  const gone = [question.key, ...underway.map((one) => one.question)];
  const open = step?.questions.find((one) => one.status === 'open' && !gone.includes(one.key) && !one.blocked);
  return open?.kind === question.kind ? open.key : null;
}
