/** The engine as it must stand in this step, from the side on which the step is seen; and what is to be seen there, or its cautions. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { later } from '../app/later';
import { sayClock } from '../app/saying';
import type { LayDrawingProps } from '../drive/LayDrawing';
import { Cautions } from '../ledger/Cautions';
import type { DrawingProps, Question } from '../ledger/contract';
import { twinQuery } from '../motion/api';
import { FrontAt } from '../motion/FrontAt';
import { sceneQuery } from '../scene/api';
import { type Looking, Lookings, useLooking } from '../scene/Lookings';
import { drawnCylinder, OneCylinder } from '../scene/OneCylinder';
import { ScenePicture } from '../scene/ScenePicture';
import { knownOf } from '../scene/shown';
import { isLaid } from './asked';
import { PartsDrawing } from './PartsDrawing';
import classes from './RunDrawing.module.css';

const LayDrawing = later<LayDrawingProps>(async () => (await import('../drive/parts')).LayDrawing);

const WAYS: Looking[] = ['side', 'above', 'front', 'cylinder', 'rings'];

export function RunDrawing({ bench, question, voice, choose }: DrawingProps) {
  const { engine } = bench;
  const found = bench.state.found?.count ?? 0;
  // with something found at the bench the engine has a drawing of its own
  const of = found ? { serial: engine.serial, cams: found } : { code: engine.family_code, number: engine.revision };
  const twin = useQuery(twinQuery(of, 'rest')).data;
  const run = bench.state.run;
  const named = run?.positions.find((one) => one.position === positionOf(question));
  const turned = question?.kind === 'turn_seen' ? question : undefined;
  const step = question?.kind === 'step_done' ? question : undefined;
  const crankDeg = turned?.crank_deg ?? (named ?? run?.positions[0])?.crank_deg;
  const standsDeg = turned?.crank_deg ?? named?.crank_deg ?? bench.state.timing?.crank?.cycle_deg ?? crankDeg ?? 0;
  const scene = useQuery(sceneQuery(engine.serial, knownOf(bench), Math.round(standsDeg))).data;
  const stepKey = bench.state.steps.find((one) => one.questions.some((each) => each.key === question?.key))?.key;
  const about = scene?.steps.find((one) => one.step === stepKey);
  const asked = about?.parts ?? [];
  const drawn = scene?.views.map((one) => one.looking) ?? [];
  const ways = WAYS.filter(
    (one) => one === 'front' || drawn.includes(one) || (one === 'cylinder' && drawnCylinder(twin)),
  );
  const { looking, look } = useLooking(question?.key, about?.looking ?? 'front', ways);
  const view = scene?.views.find((one) => one.looking === looking);
  if (isLaid(question))
    return <LayDrawing bench={bench} question={question} twin={twin} crankDeg={crankDeg ?? 0} voice={voice} />;
  const marks = turned ? turned.marks : (run?.marks ?? []).filter((mark) => mark.position === named?.position);
  return (
    <div className={classes.drawing}>
      <div className={classes.front} data-looking={looking}>
        {scene && <Lookings ways={ways} looking={looking} look={look} />}
        {scene && view && (
          <ScenePicture
            scene={scene}
            view={view}
            stands={run?.stands ?? {}}
            asked={asked}
            bench={bench}
            voice={voice}
            choose={choose}
          />
        )}
        {twin && looking === 'cylinder' && (
          <OneCylinder twin={twin} crankDeg={standsDeg} seenFrom={voice.seenFrom} asked={asked} />
        )}
        {twin && looking === 'front' && crankDeg != null && (
          <FrontAt
            twin={twin}
            crankDeg={crankDeg}
            seenFrom={voice.seenFrom}
            lit={[...litBy(question), ...litIn(about)]}
            toCome={standing(run?.stands, 'loop', ['to come', 'undone']).filter((one) => !litIn(about).includes(one))}
            held={standing(run?.stands, 'shaft', ['held'])}
            cover={about?.parts.includes('front cover') ?? false}
          />
        )}
      </div>
      <div className={classes.beside}>
        {turned && <Turned question={turned} />}
        {(step ?? turned)?.tools.length ? <Tools tools={(step ?? turned)?.tools ?? []} /> : null}
        {step?.thing && <p className={classes.thing}>{step.thing}</p>}
        {step && <PartsDrawing parts={step.parts} />}
        {marks.length > 0 && <Seen marks={marks} seenFrom={voice.seenFrom} />}
        {step && named && <HighHere here={named.here ?? []} />}
        {turned?.after_note && <p className={classes.note}>{turned.after_note}</p>}
        <Cautions question={step} />
      </div>
    </div>
  );
}

/** Shafts and loops of the drive that a step is about. */
function litIn(about: Schemas['StepScene'] | undefined): string[] {
  return (about?.parts ?? []).filter((part) => /^(shaft|loop):/.test(part)).map((part) => part.replace(/^\w+:/, ''));
}

/** The ids of what stands in one of some ways, such as loops that have not been laid yet. */
function standing(
  stands: Schemas['RunView']['stands'] | undefined,
  sort: 'loop' | 'shaft',
  how: Schemas['RunView']['stands'][string][],
): string[] {
  return Object.entries(stands ?? {})
    .filter(([part, now]) => part.startsWith(`${sort}:`) && how.includes(now))
    .map(([part]) => part.slice(sort.length + 1));
}

/** What is at hand before it is begun. */
function Tools({ tools }: { tools: string[] }) {
  return (
    <section className={classes.tools} aria-label="At hand">
      <header>At hand</header>
      {tools.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}

function positionOf(question: Question | undefined): string | null {
  return question && 'position' in question ? (question.position ?? null) : null;
}

/** What is lit in the drawing: the shafts that a thing holds, the loop that is laid. */
function litBy(question: Question | undefined): string[] {
  if (question?.kind !== 'step_done') return [];
  return [...question.shafts, ...(question.loop ? [question.loop] : [])];
}

/** Which pistons are near the top where the crank stands now, and what springs press on. */
function HighHere({ here }: { here: string[] }) {
  if (here.length === 0) return null;
  return (
    <section className={classes.tools} aria-label="Here">
      <header>Here</header>
      {here.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}

function Turned({ question }: { question: Schemas['TurnQuestion'] }) {
  return (
    <section className={classes.turned} aria-label="This stop">
      <header>
        <span>This stop, at</span>
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
              {mark.decides ? '' : ', about'}
            </b>
          </p>
        ))}
    </section>
  );
}
