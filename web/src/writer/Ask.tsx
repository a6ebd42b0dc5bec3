/** One question: its picture, what follows from it, one input. Enter gives the answer and goes on; empty, it only goes on. */
import { Button, UnstyledButton } from '@mantine/core';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { Schemas } from '../api/client';
import type { KeyAction } from '../app/keys';
import { useDraft } from '../ledger/draft';
import classes from './Ask.module.css';
import type { Asked, Draft } from './api';
import { ClockFace } from './pictures/ClockFace';
import { moved, withPlace } from './pictures/clock';
import { Picture } from './pictures/Picture';
import { numberOf } from './pictures/wheels';
import { Screen } from './Screen';
import type { Writing } from './writing';

type Source = NonNullable<Asked['source']>;

export interface AskProps {
  draft: Draft;
  question: Asked;
  writing: Writing;
  standing: Schemas['Standing'] | undefined;
  go: (key: string | null) => void;
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

const NOT_KNOWN = '?';
const LONG = 32; // letters that stand in the line at its full size
/** While words are typed, letters are letters: out of the line first. */
const LEAVE: KeyAction = { keys: ['Escape'], label: 'out of the line, then keys', run: () => undefined };

export function Ask({ draft, question, writing, standing, go, common }: AskProps) {
  const isChosen = question.takes === 'choice' || question.takes === 'several';
  const answer = useAnswer(draft, question, writing, go);
  const wheel = numberOf(standing?.front, question.picture.focus);
  return (
    <Screen actions={[...askKeys(draft, question, answer), ...common]}>
      <div className={classes.ask}>
        <div>
          <h1>{question.title}</h1>
          {question.hint && <p className={classes.hint}>{question.hint}</p>}
          {question.why && (
            <p className={classes.warning}>
              What was answered does not fit any more: {question.answer}. {question.why}
            </p>
          )}
        </div>
        <div className={classes.middle}>
          <Picture
            draft={draft}
            question={question}
            standing={standing}
            go={go}
            onAnswer={answer.give}
            writing={writing}
          />
          <Beside
            question={question}
            answer={answer}
            standing={standing}
            onOffer={answer.give}
            mayWrite={draft.may_write}
          />
        </div>
        {draft.may_write && (
          <div className={classes.input} data-wrong={writing.trouble !== null}>
            {writing.trouble && <Trouble trouble={writing.trouble} typed={answer.typed} />}
            {isChosen ? (
              <Choose question={question} answer={answer} />
            ) : (
              <Line question={question} answer={answer} wheel={wheel} />
            )}
            <div className={classes.foot}>
              <p>
                {question.costs ? (
                  <>
                    <b>Not known?</b> {question.costs}
                  </>
                ) : (
                  'This must be known before anything can be built by it.'
                )}
              </p>
              {question.costs && (
                <Button variant="default" onClick={() => answer.give(null)}>
                  Not known
                </Button>
              )}
              <Button onClick={answer.enter}>Next</Button>
            </div>
          </div>
        )}
      </div>
    </Screen>
  );
}

interface Answer {
  typed: string;
  type: (text: string) => void;
  source: Source | null;
  turnSource: () => void;
  chosen: string[];
  toggle: (value: string) => void;
  /** Gives an answer, null for not known, and goes on when it was taken. */
  give: (text: string | null) => void;
  /** What Enter does: gives what is typed or chosen, or goes on where nothing is. */
  enter: () => void;
  /** To the question before or after. */
  move: (by: number) => void;
}

function useAnswer(draft: Draft, question: Asked, writing: Writing, go: AskProps['go']): Answer {
  const before = question.answer ?? '';
  const [kept, change, forget] = useDraft(`writer.${draft.id}.${question.key}`, {
    typed: before,
    source: question.source ?? null,
  });
  const several = question.takes === 'several';
  const chosen = kept.typed
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);
  // whoever went elsewhere while an answer was on its way stays there
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => {
      isHere.current = false;
    };
  }, []);
  const goOn = (from: Draft) => {
    if (isHere.current) go(from.view.next ?? null);
  };
  const give = (text: string | null) => {
    const edit = {
      does: 'answer' as const,
      question: question.key,
      text,
      source: text === null || question.sources.length === 0 ? null : kept.source,
    };
    if (text !== null) change({ typed: text });
    void writing.write(edit, question.key).then((after) => {
      if (!after) return;
      forget();
      goOn(after);
    });
  };
  const skip = () => {
    const { questions, next } = draft.view;
    const n = questions.findIndex((one) => one.key === question.key);
    const open = [...questions.slice(n + 1), ...questions.slice(0, n)].find(
      (one) => one.status === 'open' && (one.is_first || !question.is_first),
    );
    go(open?.key ?? questions[n + 1]?.key ?? next ?? null);
  };
  return {
    typed: kept.typed,
    type: (text) => {
      writing.forget();
      change({ typed: text });
    },
    source: kept.source,
    turnSource: () => {
      const { sources } = question;
      const n = kept.source ? sources.indexOf(kept.source) : -1;
      change({ source: sources[n + 1] ?? null }); // after the last one nothing is said of it
    },
    chosen,
    toggle: (value) => {
      const next = chosen.includes(value) ? chosen.filter((one) => one !== value) : [...chosen, value];
      change({ typed: next.join(', ') });
    },
    give,
    move: (by) => {
      const { questions } = draft.view;
      const to = questions[questions.findIndex((one) => one.key === question.key) + by];
      if (to) go(to.key);
    },
    enter: () => {
      const text = kept.typed.trim();
      if (text === NOT_KNOWN && question.costs) give(null);
      else if (text === '' || (text === before && question.status === 'answered')) skip();
      else if (question.takes === 'choice') skip();
      else give(several ? chosen.join(', ') : text);
    },
  };
}

function askKeys(draft: Draft, question: Asked, answer: Answer): KeyAction[] {
  if (!draft.may_write) return [];
  const digits: KeyAction[] = question.choices.map((one, n) => ({
    keys: [String(n + 1)],
    label: one.name,
    quiet: true,
    run: () => (question.takes === 'several' ? answer.toggle(one.value) : answer.give(one.value)),
  }));
  const offers: KeyAction[] = question.offers.map((one) => ({
    keys: [one.key],
    label: one.words,
    quiet: true,
    run: () => answer.give(one.text),
  }));
  return [
    ...digits,
    ...offers,
    { keys: ['Enter'], label: 'next', run: answer.enter },
    ...(question.takes === 'line' ? [LEAVE] : []),
    ...(isMark(question) ? clockKeys(answer) : []),
    ...(question.costs ? [{ keys: ['n'], label: 'not known', run: () => answer.give(null) }] : []),
    ...(question.sources.length ? [{ keys: ['c'], label: question.sources.join(' / '), run: answer.turnSource }] : []),
  ];
}

function Trouble({ trouble, typed }: { trouble: NonNullable<Writing['trouble']>; typed: string }) {
  const { at } = trouble;
  return (
    <p role="alert">
      {at && at.end <= typed.length && at.end > at.begin && (
        <code>
          {typed.slice(0, at.begin)}
          <mark>{typed.slice(at.begin, at.end)}</mark>
          {typed.slice(at.end)}
        </code>
      )}
      {trouble.sentence}
    </p>
  );
}

interface LineProps {
  question: Asked;
  answer: Answer;
  wheel: number | null;
}

function Line({ question, answer, wheel }: LineProps) {
  const field = useRef<HTMLInputElement>(null);
  const isCount = question.takes === 'count';
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') field.current?.blur();
    if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      answer.move(event.key === 'ArrowUp' ? -1 : 1);
    }
    // a count hears letters as keys already
    if (isCount || event.key !== 'Enter') return;
    event.preventDefault();
    answer.enter();
  };
  return (
    <div className={classes.line} data-count={isCount}>
      <div className={classes.about}>
        <label htmlFor="answer">
          {wheel !== null && `${wheel} `}
          {question.about}
        </label>
        {question.example && <span>such as {question.example}</span>}
      </div>
      <input
        id="answer"
        ref={field}
        value={answer.typed}
        autoComplete="off"
        spellCheck={false}
        inputMode={isCount ? 'numeric' : 'text'}
        data-figure={isCount ? '' : undefined}
        data-long={answer.typed.length > LONG}
        onKeyDown={onKey}
        onChange={(event) => answer.type(event.currentTarget.value)}
      />
      {question.sources.length > 0 && (
        <UnstyledButton className={classes.source} onClick={answer.turnSource}>
          from: <b>{answer.source ?? 'not said'}</b>
        </UnstyledButton>
      )}
    </div>
  );
}

function Choose({ question, answer }: { question: Asked; answer: Answer }) {
  const isSeveral = question.takes === 'several';
  return (
    <ul className={classes.choices} data-many={question.choices.length > 4}>
      {question.choices.map((one, n) => (
        <li key={one.value}>
          <UnstyledButton
            aria-pressed={answer.chosen.includes(one.value)}
            onClick={() => (isSeveral ? answer.toggle(one.value) : answer.give(one.value))}
          >
            <i>{n + 1}</i>
            <b>{one.name}</b>
            {one.words && <span>{one.words}</span>}
          </UnstyledButton>
        </li>
      ))}
    </ul>
  );
}

/** Whether a question is about a mark, which stands somewhere on the clock. */
const isMark = (question: Asked) => question.key.startsWith('mark.') || question.key.startsWith('meet.');

function clockKeys(answer: Answer): KeyAction[] {
  const by = (halves: number) => () => answer.type(moved(answer.typed, halves));
  return [
    { keys: ['ArrowRight'], shown: '← →', label: 'round the clock', run: by(1) },
    { keys: ['ArrowLeft'], label: 'back round the clock', quiet: true, run: by(-1) },
    { keys: ['0'], label: 'no place known', quiet: true, run: () => answer.type(withPlace(answer.typed, null)) },
  ];
}

interface BesideProps {
  answer: Answer;
  question: Asked;
  standing: Schemas['Standing'] | undefined;
  onOffer: (text: string) => void;
  mayWrite: boolean;
}

/** What follows, what is doubtful about it, and what is one key away. */
function Beside({ question, answer, standing, onOffer, mayWrite }: BesideProps) {
  const said = [...(standing?.faults ?? []), ...(standing?.doubtful ?? [])].filter(
    (one) => one.question === question.key,
  );
  const offers = mayWrite ? question.offers : [];
  const hasClock = mayWrite && isMark(question);
  if (question.facts.length + said.length + offers.length === 0 && !question.answer && !hasClock) return null;
  return (
    <div className={classes.beside}>
      {question.answer && <p className={classes.answered}>{nameOf(question)}</p>}
      {hasClock && <ClockFace line={answer.typed} onLine={answer.type} />}
      {question.facts.length > 0 && (
        <dl>
          {question.facts.map((fact) => (
            <div key={fact.what}>
              <dt>{fact.what}</dt>
              <dd>{fact.is_so}</dd>
            </div>
          ))}
        </dl>
      )}
      {said.map((one) => (
        <p key={one.sentence} className={classes.doubt}>
          {one.sentence}
        </p>
      ))}
      {offers.map((one) => (
        <UnstyledButton key={one.key} className={classes.offer} onClick={() => onOffer(one.text)}>
          <b>{one.key.toUpperCase()}</b> {one.words}
        </UnstyledButton>
      ))}
    </div>
  );
}

function nameOf(question: Asked): string {
  const values = question.takes === 'several' ? (question.answer ?? '').split(', ') : [question.answer ?? ''];
  return values.map((value) => question.choices.find((one) => one.value === value)?.name ?? value).join(', ');
}
