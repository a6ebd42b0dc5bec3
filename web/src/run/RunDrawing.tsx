/** The front of the engine as it must stand in this step, and what is to be seen there; where it has no place of its own, its cautions. */
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import { sayClock } from '../app/saying';
import type { DrawingProps, Question } from '../ledger/contract';
import { twinQuery } from '../motion/api';
import { FrontDrawing } from '../motion/FrontDrawing';
import { Turning } from '../motion/turning';
import classes from './RunDrawing.module.css';

export function RunDrawing({ bench, question, voice }: DrawingProps) {
  const { engine } = bench;
  const of = { code: engine.family_code, number: engine.revision };
  const twin = useQuery(twinQuery(of, 'rest')).data;
  const run = bench.state.run;
  const named = run?.positions.find((one) => one.position === positionOf(question));
  const turned = question?.kind === 'turn_seen' ? question : undefined;
  const crankDeg = turned?.crank_deg ?? (named ?? run?.positions[0])?.crank_deg;
  const marks = turned ? turned.marks : (run?.marks ?? []).filter((mark) => mark.position === named?.position);
  return (
    <div className={classes.drawing}>
      <div className={classes.front}>
        {twin && crankDeg !== undefined && <Standing twin={twin} crankDeg={crankDeg} seenFrom={voice.seenFrom} />}
      </div>
      <div className={classes.beside}>
        {turned && <Turned question={turned} />}
        {marks.length > 0 && <Seen marks={marks} seenFrom={voice.seenFrom} />}
        {turned?.after_note && <p className={classes.note}>{turned.after_note}</p>}
        {question?.kind === 'step_done' &&
          question.cautions.map((caution) => <Caution key={caution} words={caution} />)}
      </div>
    </div>
  );
}

function positionOf(question: Question | undefined): string | null {
  return question && 'position' in question ? (question.position ?? null) : null;
}

interface StandingProps {
  twin: Schemas['Twin'];
  crankDeg: number;
  seenFrom: 'front' | 'flywheel';
}

function Standing({ twin, crankDeg, seenFrom }: StandingProps) {
  const turning = useMemo(() => new Turning(crankDeg), [crankDeg]);
  return <FrontDrawing twin={twin} cylinder={undefined} turning={turning} seenFrom={seenFrom} />;
}

function Turned({ question }: { question: Schemas['TurnQuestion'] }) {
  return (
    <section className={classes.turned} aria-label="Turned so far">
      <header>
        <span>Turned so far</span>
        <span>of {question.turns_in_all} turns</span>
      </header>
      <b>{question.turns}</b>
      {question.see.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}

interface SeenProps {
  marks: Schemas['MarkSeen'][];
  seenFrom: 'front' | 'flywheel';
}

/** Marks that stand so, as clock positions from the side that is looked from; those that decide first. */
function Seen({ marks, seenFrom }: SeenProps) {
  return (
    <section className={classes.seen} aria-label="You should see">
      <header>
        <span>You should see</span>
        <span>from the {seenFrom}</span>
      </header>
      {[...marks]
        .sort((a, b) => Number(b.decides) - Number(a.decides))
        .map((mark) => (
          <p key={mark.name}>
            <span>{mark.name}</span>
            <b>
              {sayClock(mark.clock_deg, seenFrom)}
              {mark.decides ? '' : ', near'}
            </b>
          </p>
        ))}
    </section>
  );
}

function Caution({ words }: { words: string }) {
  return <p className={classes.caution}>{words}</p>;
}
