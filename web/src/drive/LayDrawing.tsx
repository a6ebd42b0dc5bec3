/** A chain or belt as it is laid: where its slack lies, what the crank will do once it is taken up, a turn that is only tried, how to lay it right. */
import { UnstyledButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type Schemas } from '../api/client';
import { useKeys } from '../app/keys';
import type { Voice } from '../app/saying';
import { Cautions } from '../ledger/Cautions';
import { useDraft } from '../ledger/draft';
import { FrontAt } from '../motion/FrontAt';
import { layQuery } from './api';
import classes from './LayDrawing.module.css';

const TRY_DEG = 5;
const MOST_DEG = 720;
const NOTHING: { answers: Record<string, string> } = { answers: {} };

export interface LayDrawingProps {
  bench: Schemas['Bench'];
  question: Schemas['StepQuestion'];
  twin: Schemas['Twin'] | undefined;
  crankDeg: number;
  voice: Voice;
}

export function LayDrawing({ bench, question, twin, crankDeg, voice }: LayDrawingProps) {
  const [turned, setTurned] = useState(0);
  const [way, setWay] = useState(0);
  const { view, wrong } = useLay(bench, question, turned);
  const turn = (by: number) => setTurned((deg) => Math.max(-MOST_DEG / 2, Math.min(MOST_DEG, deg + by)));
  useKeys([
    { keys: ['ArrowRight'], label: 'try a turn on', run: () => turn(TRY_DEG) },
    { keys: ['ArrowLeft'], label: 'try a turn back', run: () => turn(-TRY_DEG) },
    { keys: ['Escape'], label: 'put it back', run: () => setTurned(0) },
  ]);
  return (
    <div className={classes.lay}>
      <div className={classes.front}>
        {twin && (
          <FrontAt
            twin={twin}
            crankDeg={crankDeg + (view?.turned_deg ?? 0)}
            seenFrom={voice.seenFrom}
            lit={view?.schools[way]?.shafts ?? []}
            laid={view}
          />
        )}
        <div className={classes.turn} hidden={view?.runs.length === 0}>
          <UnstyledButton aria-label="Try a turn back" onClick={() => turn(-TRY_DEG)}>
            ←
          </UnstyledButton>
          <span role="status">{view?.turned_words || 'Try a turn: nothing of it is kept.'}</span>
          {turned !== 0 && (
            <UnstyledButton className={classes.back} onClick={() => setTurned(0)}>
              Put it back
            </UnstyledButton>
          )}
          <UnstyledButton aria-label="Try a turn on" onClick={() => turn(TRY_DEG)}>
            →
          </UnstyledButton>
        </div>
      </div>
      <div className={classes.beside}>
        <Cautions question={question} />
        {wrong && (
          <p role="alert" className={classes.wrong}>
            {wrong.message}
          </p>
        )}
        {view && <Outcome view={view} />}
        {view && <Schools schools={view.schools} chosen={way} onChoose={setWay} />}
        {view && view.table.length > 0 && <CountTable view={view} />}
      </div>
    </div>
  );
}

/** What comes of it as far as it is typed; while a figure is being typed the one before stays. */
function useLay(bench: Schemas['Bench'], question: Schemas['StepQuestion'], turned: number) {
  const { serial } = bench.engine;
  const [draft] = useDraft(`${serial}.${question.key}`, NOTHING);
  const [answers] = useDebouncedValue(draft.answers, 150);
  const counts = question.fields.filter((field) => field.kind === 'figure').map((field) => field.key);
  const counted = Object.fromEntries(counts.map((key) => [key, answers[key] ?? '']));
  const asked = { counted, slack_left: answers.slack === 'left', turned_deg: turned };
  const { data, error } = useQuery(layQuery(serial, question.step, asked, bench.entries));
  return { view: data, wrong: error instanceof ApiProblem ? error : null };
}

function Outcome({ view }: { view: Schemas['LayView'] }) {
  return (
    <section
      className={classes.outcome}
      aria-label="If laid like this"
      data-right={view.is_counted ? view.is_right : undefined}
    >
      <header>
        <span>{view.is_counted || !view.figure ? 'If laid like this' : view.one_is}</span>
        <span>{view.is_counted ? 'after one turn' : view.figure && 'of the crank'}</span>
      </header>
      {view.figure && <b>{view.figure}</b>}
      <strong>{view.off_words}</strong>
      <p>{view.says}</p>
      {view.not_known.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}

/** What one more and one less would do. */
function CountTable({ view }: { view: Schemas['LayView'] }) {
  return (
    <section className={classes.table} aria-label="One more, one less">
      <header>
        <span>{view.table_of}</span>
      </header>
      {view.table.map((row) => (
        <p key={row.counted} data-typed={row.is_typed}>
          <b>{row.counted}</b>
          <span>
            {row.words}
            {row.is_book && <small> · book</small>}
          </span>
        </p>
      ))}
    </section>
  );
}

interface SchoolsProps {
  schools: Schemas['School'][];
  chosen: number;
  onChoose: (way: number) => void;
}

/** Ways to lay it, one at a time, with the shafts they turn lit in the drawing; those that something forbids say what. */
function Schools({ schools, chosen, onChoose }: SchoolsProps) {
  const next = () => onChoose((chosen + 1) % Math.max(1, schools.length));
  useKeys([{ keys: ['a'], label: 'another way', run: next }]);
  const school = schools[chosen];
  if (!school) return null;
  return (
    <section className={classes.schools} aria-label="Move the slack to the tensioner's side">
      <header>
        <span>Slack to the tensioner</span>
        {schools.length > 1 && (
          <UnstyledButton onClick={next}>
            <kbd>A</kbd> another way, {chosen + 1} of {schools.length}
          </UnstyledButton>
        )}
      </header>
      <strong>{school.name}</strong>
      {!school.is_open && <p className={classes.shut}>Not now: {school.why}.</p>}
      <ol>
        {school.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {school.is_open && (
        <p>
          {school.why[0]?.toUpperCase()}
          {school.why.slice(1)}.
        </p>
      )}
    </section>
  );
}
