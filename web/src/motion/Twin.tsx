/** The twin: for every crank angle where pistons, valves, lobes and marks are, from either end. */
import { SegmentedControl, TextInput, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useId, useMemo, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import type { KeyAction } from '../app/keys';
import { later } from '../app/later';
import { Notice, Waiting } from '../app/Notice';
import { say, type Voice } from '../app/saying';
import { useTurnRound } from '../app/session';
import type { SideTurningProps } from '../scene/SideTurning';
import { type Phasers, snapshotQuery, type TwinOf, twinQuery, wordsQuery } from './api';
import { FrontDrawing } from './FrontDrawing';
import { Lobes } from './Lobes';
import { Marks } from './Marks';
import { Section } from './Section';
import { Strokes } from './Strokes';
import classes from './Twin.module.css';
import { inCycle, Turning, useAngle, useRestingAngle } from './turning';

const SideTurning = later<SideTurningProps>(async () => (await import('../scene/SideTurning')).SideTurning);

const LEGEND = [
  ['decides', 'decides'],
  ['guides', 'guides'],
  ['pointer', 'stands still'],
  ['key', 'key or dowel'],
  ['tensioner', 'tensioner'],
] as const;

export interface TwinProps {
  of: TwinOf;
  voice: Voice;
  /** Where it begins; the timing position when left out. */
  start?: number | undefined;
  keys?: KeyAction[];
  /** What can be done about the angle it rests at. */
  children?: (restingDeg: number) => ReactNode;
}

export function Twin(props: TwinProps) {
  const [phasers, setPhasers] = useState<Phasers>('rest');
  const { data, error, isPending, refetch } = useQuery(twinQuery(props.of, phasers));
  if (isPending) return <Waiting what="Working out where everything is" />;
  if (error)
    return (
      <Notice title="The twin cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  return <TwinScreen {...props} twin={data} phasers={phasers} onPhasers={setPhasers} />;
}

interface TwinScreenProps extends TwinProps {
  twin: Schemas['Twin'];
  phasers: Phasers;
  onPhasers: (phasers: Phasers) => void;
}

function TwinScreen({ of, voice, start, keys = [], children, twin, phasers, onPhasers }: TwinScreenProps) {
  const { frames } = twin;
  const turning = useMemo(() => new Turning(start ?? frames.home_deg), [start, frames.home_deg]);
  const [chosen, setChosen] = useState(frames.reference_cylinder);
  const cylinder = frames.cylinders.find((one) => one.cylinder === chosen);
  const resting = useRestingAngle(turning);
  const snapshot = useQuery(snapshotQuery(of, resting, phasers)).data;
  const words = useQuery(wordsQuery(of, phasers)).data ?? [];
  const turnRound = useTurnRound();
  const [all, setAll] = useState(false);
  // whose measures are not known has no section of its own, but its piston is known to go up and down
  const showsAll = cylinder !== undefined && (all || !cylinder.section);
  const nextCylinder = () => {
    const at = frames.cylinders.findIndex((one) => one.cylinder === chosen);
    const next = frames.cylinders[(at + 1) % frames.cylinders.length];
    if (next) setChosen(next.cylinder);
  };
  return (
    <>
      <main className={classes.twin}>
        <Sentence turning={turning} words={words} voice={voice} />
        <div className={classes.drawings} data-section={showsAll ? 'all' : cylinder ? 'one' : 'none'}>
          <figure className={classes.front}>
            <FrontDrawing twin={twin} cylinder={cylinder} turning={turning} seenFrom={voice.seenFrom} />
            <figcaption>
              {LEGEND.map(([key, words]) => (
                <span key={key}>
                  <i data-key={key} /> {words}{' '}
                </span>
              ))}
            </figcaption>
          </figure>
          {showsAll && (
            <figure className={classes.section}>
              <SideTurning of={of} turning={turning} seenFrom={voice.seenFrom} />
            </figure>
          )}
          {!showsAll && cylinder?.section && (
            <figure className={classes.section}>
              <Section cylinder={cylinder} section={cylinder.section} turning={turning} seenFrom={voice.seenFrom} />
              <figcaption>
                cylinder {chosen}, {cylinder.bank.toLowerCase()}
              </figcaption>
            </figure>
          )}
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and whoever has no mouse scrolls it by keys */}
          <aside className={classes.marks} aria-label="Marks and lobes" tabIndex={0}>
            {(snapshot?.here ?? []).length > 0 && (
              <section className={classes.here} aria-label="Here">
                {snapshot?.here.map((one) => (
                  <p key={one}>{one}</p>
                ))}
              </section>
            )}
            <Marks snapshot={snapshot} seenFrom={voice.seenFrom} />
            <Lobes snapshot={snapshot} cylinder={chosen} voice={voice} />
            {twin.not_known.length > 0 && (
              <section className={classes.open} aria-label="Not known">
                {!twin.drawing.is_to_scale && <b>A sketch, not to scale.</b>}
                {twin.not_known.map((sentence) => (
                  <p key={sentence}>{sentence}</p>
                ))}
              </section>
            )}
          </aside>
        </div>
        {frames.cylinders.length > 0 && (
          <Strokes frames={frames} chosen={chosen} onChoose={setChosen} turning={turning} />
        )}
        <Slider turning={turning} />
        <div className={classes.controls}>
          <AngleInput turning={turning} resting={resting} from={twin.counted_from} />
          <div className={classes.buttons}>
            {[-90, -10, -1, 1, 10, 90].map((by) => (
              <UnstyledButton
                key={by}
                onClick={() => turning.turn(by)}
                aria-label={`Turn ${by > 0 ? 'on' : 'back'} ${Math.abs(by)}°`}
              >
                {by > 0 ? `+${by}°` : `−${-by}°`}
              </UnstyledButton>
            ))}
            <UnstyledButton onClick={() => turning.turnTo(frames.home_deg)} title={frames.home_name}>
              timing position
            </UnstyledButton>
          </div>
          {twin.phasers && (
            <SegmentedControl
              aria-label="Phasers"
              value={phasers}
              onChange={(value) => onPhasers(value === 'rest' ? 'rest' : 'other stop')}
              data={[
                { value: 'rest', label: 'phasers at rest' },
                { value: 'other stop', label: 'on the other stop' },
              ]}
            />
          )}
          {children?.(resting)}
        </div>
      </main>
      <KeyStrip
        actions={[
          ...turnKeys(turning, frames.home_deg),
          { keys: ['c'], label: 'next cylinder', shift: false, run: nextCylinder },
          ...(cylinder?.section ? [{ keys: ['v'], label: 'all cylinders / one', run: () => setAll(!all) }] : []),
          { keys: ['f'], label: 'front / flywheel', run: turnRound },
          ...keys,
        ]}
      />
    </>
  );
}

function turnKeys(turning: Turning, home: number): KeyAction[] {
  const pair = (keys: [string, string], by: number, shown: string, shift?: boolean): KeyAction[] => [
    {
      keys: [keys[0]],
      shown,
      label: `${by}°`,
      shift,
      run: () => turning.turn(-by),
    },
    {
      keys: [keys[1]],
      shown,
      label: `on ${by}°`,
      quiet: true,
      shift,
      run: () => turning.turn(by),
    },
  ];
  return [
    ...pair(['ArrowLeft', 'ArrowRight'], 1, '← →', false),
    ...pair(['ArrowLeft', 'ArrowRight'], 10, 'Shift ← →', true),
    ...pair(['PageUp', 'PageDown'], 90, 'Page'),
    { keys: ['Home'], label: 'timing position', run: () => turning.turnTo(home) },
  ];
}

/** The big sentence: where the crank stands and where the marks are. Each part is laid out by itself, since few change at once. */
function Sentence({ turning, words, voice }: { turning: Turning; words: string[]; voice: Voice }) {
  const line = useRef<HTMLHeadingElement>(null);
  const partsAt = (deg: number) => {
    const at = Math.round(inCycle(deg));
    // what is to be seen there comes a little later than the drawing
    return say(words[at % words.length] ?? `Crank at ${at}°`, voice).split(/(?<=; )/);
  };
  useAngle(turning, (deg: number) => {
    for (const [n, part] of partsAt(deg).entries()) {
      const node = line.current?.children[n];
      if (node && node.textContent !== part) node.textContent = part;
    }
  });
  return (
    <h1 ref={line} className={classes.sentence}>
      {partsAt(turning.aim).map((part, n) => (
        // parts keep their places; only their words change
        <span key={n}>{part}</span>
      ))}
    </h1>
  );
}

function Slider({ turning }: { turning: Turning }) {
  const input = useRef<HTMLInputElement>(null);
  useAngle(turning, (deg: number) => {
    if (input.current && document.activeElement !== input.current)
      input.current.value = String(Math.round(inCycle(deg)));
  });
  return (
    <input
      ref={input}
      type="range"
      min={0}
      max={720}
      step={1}
      defaultValue={turning.aim}
      aria-label="Crank angle"
      data-figure
      className={classes.slider}
      onInput={(event) => turning.jumpTo(Number(event.currentTarget.value))}
      onPointerUp={(event) => event.currentTarget.blur()}
    />
  );
}

/** An angle to turn to; what is typed stays until it is one. */
function AngleInput({ turning, resting, from }: { turning: Turning; resting: number; from: string }) {
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState('');
  const help = useId();
  const go = () => {
    const deg = Number(typed.trim().replace(',', '.'));
    if (typed.trim() === '' || !Number.isFinite(deg))
      return setWrong(`“${typed}” is no angle; type degrees, such as 330.`);
    turning.turnTo(deg);
    setTyped('');
    setWrong('');
  };
  return (
    <form
      className={classes.angle}
      onSubmit={(event) => {
        event.preventDefault();
        if (typed) go();
      }}
    >
      <TextInput
        aria-label="Turn to"
        aria-describedby={help}
        inputMode="decimal"
        // on touch the field would call up a keyboard that hides the engine
        autoFocus={!window.matchMedia('(pointer: coarse)').matches}
        autoComplete="off"
        data-figure
        placeholder={`${resting}°`}
        value={typed}
        error={wrong}
        onChange={(event) => {
          setTyped(event.currentTarget.value.replace(/[a-z°]/gi, ''));
          setWrong('');
        }}
      />
      <span id={help}>after {from}</span>
    </form>
  );
}
