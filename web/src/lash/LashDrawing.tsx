/** The valves cylinder by cylinder, those of the stop where the crank stands marked; beside them the stops, and what one valve came to. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { say, sayFine, type Voice } from '../app/saying';
import { useSpeak, useSpoken } from '../app/spoken';
import { Verdict } from '../app/Verdict';
import { Cautions } from '../ledger/Cautions';
import type { DrawingProps, Question } from '../ledger/contract';
import { twinQuery } from '../motion/api';
import { FrontAt } from '../motion/FrontAt';
import classes from './LashDrawing.module.css';

type Lash = Schemas['LashView'];
type Valve = Lash['valves'][number];

const COLUMN = 92;
const ROW = 98;
const SIDE = 64;

function askedValve(question: Question | undefined): string | null {
  if (question?.kind === 'lash_reading') return question.id;
  return question?.kind === 'lash_decided' ? question.valve : null;
}

export function LashDrawing({ bench, question, voice }: DrawingProps) {
  const lash = bench.state.lash;
  useSpeak(question?.kind === 'lash_reading' || question?.kind === 'lash_stop' ? question.ask : '');
  if (!lash) return <div />;
  const id = askedValve(question);
  const valve = lash.valves.find((one) => one.id === id);
  const turning = question?.kind === 'lash_stop' ? question.stop : null;
  return (
    <div className={classes.lash}>
      <div className={classes.picture}>
        {turning !== null && <StopPicture bench={bench} stop={turning} voice={voice} />}
        <Valves lash={lash} now={id} turning={turning} voice={voice} />
        <p className={classes.legend}>dashed = may be set at this stop</p>
      </div>
      <div className={classes.beside}>
        {valve && <Figure valve={valve} voice={voice} />}
        <Stops lash={lash} turning={turning} voice={voice} />
        <Cautions question={question} />
      </div>
    </div>
  );
}

/** The engine's front as it stands at a stop. */
function StopPicture({ bench, stop, voice }: { bench: DrawingProps['bench']; stop: number; voice: Voice }) {
  const { engine } = bench;
  const twin = useQuery(twinQuery({ code: engine.family_code, number: engine.revision }, 'rest')).data;
  const crankDeg = bench.state.lash?.stops.find((one) => one.number === stop)?.crank_deg;
  if (!twin || crankDeg == null) return null;
  return (
    <div className={classes.front}>
      <FrontAt twin={twin} crankDeg={crankDeg} seenFrom={voice.seenFrom} lit={[]} />
    </div>
  );
}

/** Intake above exhaust, twin valves apart. */
function rows(lash: Lash): string[] {
  const named = lash.valves.map((one) => [one.valve, one.place].filter(Boolean).join(', '));
  return [...new Set(named)].sort((a, b) => Number(a.startsWith('exhaust')) - Number(b.startsWith('exhaust')));
}

interface ValvesProps {
  lash: Lash;
  now: string | null;
  turning: number | null;
  voice: Voice;
}

function Valves({ lash, now, turning, voice }: ValvesProps) {
  const cylinders = [...new Set(lash.valves.map((one) => one.cylinder))].sort((a, b) => a - b);
  const lines = rows(lash);
  const at = turning ?? lash.stops.find((stop) => stop.is_now)?.number;
  const here = new Set(lash.stops.find((stop) => stop.number === at)?.valves);
  const wide = SIDE + cylinders.length * COLUMN;
  return (
    <svg
      className={classes.valves}
      viewBox={`0 0 ${wide} ${lines.length * ROW + 26}`}
      role="img"
      aria-label={`${lash.valves.length} valves`}
    >
      {cylinders.map((cylinder, n) => (
        <text key={cylinder} className={classes.cylinder} x={SIDE + (n + 0.5) * COLUMN} y={17} textAnchor="middle">
          {cylinder}
        </text>
      ))}
      {lines.map((line, n) => (
        <text
          key={line}
          className={classes.cylinder}
          x={SIDE - 8}
          y={26 + (n + 0.5) * ROW}
          dy="0.32em"
          textAnchor="end"
        >
          {line}
        </text>
      ))}
      {lash.valves.map((one) => {
        const row = lines.indexOf([one.valve, one.place].filter(Boolean).join(', '));
        const x = SIDE + (cylinders.indexOf(one.cylinder) + 0.5) * COLUMN;
        const y = 22 + (row + 0.5) * ROW;
        return (
          <g key={one.id} className={classes.valve} data-verdict={one.verdict ?? 'open'} data-valve={one.valve}>
            {here.has(one.id) && <circle className={classes.here} cx={x} cy={y} r={32} />}
            <circle className={classes.head} data-now={one.id === now} cx={x} cy={y} r={27} />
            <text className={classes.value} x={x} y={y - 1} dy="0.32em" textAnchor="middle">
              {one.lash_mm != null ? sayFine(one.lash_mm, voice.factor).split(' ')[0] : one.verdict ? '✓' : ''}
            </text>
            {one.verdict && one.verdict !== 'no limit known' && (
              <text className={classes.word} x={x} y={y + 46} textAnchor="middle">
                {one.is_pending ? 'read again' : one.verdict}
              </text>
            )}
            {one.shim_mm != null && (
              <text className={classes.shim} x={x} y={y + 17} textAnchor="middle">
                {one.shim_mm.toFixed(2)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

function Figure({ valve, voice }: { valve: Valve; voice: Voice }) {
  const [spoken, setSpoken] = useSpoken();
  const fine = (mm: number) => sayFine(mm, voice.factor).split(' ')[0];
  return (
    <section className={classes.figure} aria-label="The valve">
      <header>
        <span>{valve.words}</span>
        <UnstyledButton aria-pressed={spoken} onClick={() => setSpoken(!spoken)}>
          {spoken ? 'read aloud' : 'silent'}
        </UnstyledButton>
      </header>
      {valve.low_mm != null && valve.high_mm != null && (
        <b>
          {fine(valve.low_mm)} – {fine(valve.high_mm)}
        </b>
      )}
      {valve.verdict && valve.lash_mm != null && (
        <p>
          read {fine(valve.lash_mm)}, U {fine(valve.u_mm ?? 0)} <Verdict verdict={valve.verdict} />
          {valve.found_mm != null && ` · found at ${fine(valve.found_mm)}`}
        </p>
      )}
      {valve.advice && <p className={classes.advice}>{say(valve.advice, voice)}</p>}
      {valve.decided && <p>{valve.decided}</p>}
    </section>
  );
}

function Stops({ lash, turning, voice }: { lash: Lash; turning: number | null; voice: Voice }) {
  return (
    <section className={classes.stops} aria-label="Stops">
      <p>{say(lash.way, voice)}</p>
      <ol>
        {lash.stops.map((stop) => (
          <li key={stop.number} data-now={stop.number === (turning ?? (stop.is_now ? stop.number : null))}>
            <b>{stop.where}</b> <span>{stop.left > 0 ? `${stop.left} of ${stop.valves.length} to do` : 'done'}</span>
            {(stop.number === turning || (turning === null && stop.is_now)) && stop.sees && (
              <small>{say(stop.sees, voice)}</small>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
