/** A question that brings all its answers: one is confirmed, of several one is chosen; a word goes with those that ask for one. */
import { Button, TextInput } from '@mantine/core';
import { useLayoutEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { useKeys } from '../app/keys';
import { say } from '../app/saying';
import { Choices } from './Choices';
import { Confirm } from './Confirm';
import type { EntryBody, InputProps, PlainKind, QuestionOf } from './contract';
import { useDraft } from './draft';
import input from './input.module.css';
import classes from './PlainInput.module.css';
import { Wrong } from './Wrong';

type Props = InputProps<QuestionOf<PlainKind>>;
type Answer = Schemas['PlainAnswer'];

export function PlainInput(props: Props) {
  const { question, voice } = props;
  const { answers } = question;
  const [first] = answers;
  const waits = question.doing ? question.blocked : ''; // of whatever holds nothing back the server judges
  if (answers.length > 1 || first?.words) {
    return answers.some((one) => one.words) ? <WithWords {...props} /> : <ChooseOne {...props} />;
  }
  return (
    <Confirm
      {...props}
      what={say(waits ? `Not yet: ${waits}.` : (question.said ?? ''), voice)}
      button={first ? say(first.title, voice) : ''}
      may={first !== undefined}
      entry={first && !waits ? entryOf(first, '') : null}
    />
  );
}

/** What is entered by an answer. The question brings it whole, and the server judges it as any other. */
function entryOf(answer: Answer, words: string): EntryBody {
  return { ...answer.entry, ...(answer.words ? { [answer.words]: words.trim() } : {}) } as EntryBody;
}

const shownOf = (answers: Answer[], voice: Props['voice']) =>
  answers.map((one) => ({ title: say(one.title, voice), detail: say(one.detail ?? '', voice) }));

/** Of several that need no word: to choose is to answer. */
function ChooseOne({ question, voice, wrong, busy, answer }: Props) {
  const { answers } = question;
  const choose = (one: Answer | undefined) => {
    if (one && !busy) void answer(one.title, entryOf(one, ''));
  };
  useKeys([
    ...answers.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => choose(one) })),
    ...(question.first_by_enter
      ? [{ keys: ['Enter', ' ', 'PageDown'], label: 'the first', run: () => choose(answers[0]) }]
      : []),
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      <Choices choices={shownOf(answers, voice)} onChoose={(n) => choose(answers[n])} />
      <Wrong wrong={wrong} />
    </section>
  );
}

function WithWords({ bench, question, voice, wrong, busy, answer }: Props) {
  const { answers } = question;
  const [chosen, setChosen] = useState(question.chosen ?? 0);
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, { words: '' });
  const [missed, setMissed] = useState(false); // whether somebody would have recorded without the words it needs
  const field = useRef<HTMLInputElement>(null);
  const one = answers[chosen] ?? answers[0];
  const isOnly = answers.length === 1;
  // digits choose where there are several; a word that must be is typed at once
  useLayoutEffect(() => {
    if (isOnly && one?.needs_words) field.current?.focus();
  }, [isOnly, one?.needs_words]);
  const isWhole = one !== undefined && (!one.needs_words || draft.words.trim() !== '');
  const record = async () => {
    if (busy || !one) return;
    if (!isWhole) {
      setMissed(true);
      field.current?.focus();
      return;
    }
    if ((await answer(one.needs_words ? draft.words : one.title, entryOf(one, draft.words))) !== 'refused') forget();
  };
  useKeys([
    ...(isOnly
      ? []
      : answers.map((each, n) => ({ keys: [String(n + 1)], label: each.title, run: () => setChosen(n) }))),
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      {!isOnly && <Choices choices={shownOf(answers, voice)} chosen={chosen} onChoose={setChosen} />}
      {one?.words && (
        <div className={classes.words}>
          <TextInput
            ref={field}
            label={say(one.asks || 'Why', voice)}
            value={draft.words}
            error={missed && !isWhole ? 'Not without a few words: say them here.' : undefined}
            onChange={(event) => change({ words: event.currentTarget.value.slice(0, 300) })}
            onKeyDown={(event) => event.key === 'Enter' && void record()}
          />
        </div>
      )}
      <div className={input.foot}>
        <span className={input.grow}>{say(one?.said || question.said || '', voice)}</span>
        <Button size="lg" onClick={record} loading={busy}>
          {one && say(one.button || one.title, voice)}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
