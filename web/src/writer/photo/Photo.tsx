/** A photo of the front as ground: two known distances, axes and teeth, pointed at by tap or keys; places follow from that, to scale. */
import { Button, FileButton, TextInput, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import type { KeyAction } from '../../app/keys';
import { useDraft } from '../../ledger/draft';
import { type Draft, photoQuery } from '../api';
import { oneOfEach } from '../pictures/wheels';
import { Screen } from '../Screen';
import type { Writing } from '../writing';
import classes from './Photo.module.css';
import { PhotoGround } from './PhotoGround';
import { forgetGround, type Ground, groundOf, keepGround } from './photos';
import { type Aim, isAim, marksOf, NOTHING, type Point, type Pointed, pointAt, takeBack } from './pointed';

interface PhotoProps {
  draft: Draft;
  writing: Writing;
  front: Schemas['DriveDrawing'] | null | undefined;
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

const STEP = 0.012; // of the shorter side, for each press of an arrow key
const FINE = 0.2;
const MOST_ZOOM = 8;
const KNOWN = ['First known distance', 'Second, across to it'];

export function Photo({ draft, writing, front: now, common }: PhotoProps) {
  // while something is at fault there may be no front to draw: what was pointed at stays on the one before
  const last = useRef(now);
  if (now && now.wheels.length > 0) last.current = now;
  const front = last.current;
  const [ground, setGround] = useState<Ground | null>();
  const [wrong, setWrong] = useState('');
  useEffect(() => {
    void groundOf(draft.id)
      .catch(() => null)
      .then(setGround);
  }, [draft.id]);
  const choose = (file: File | null) => {
    if (file)
      void keepGround(draft.id, file).then(
        (kept) => {
          setGround(kept);
          setWrong('');
        },
        (error: Error) => setWrong(error.message),
      );
  };
  const noGround = !ground || !front || front.wheels.length === 0;
  if (!noGround && ground) {
    const away = () => void forgetGround(draft.id).then(() => setGround(null));
    return <Pointing draft={draft} writing={writing} front={front} ground={ground} common={common} onAway={away} />;
  }
  return (
    <Screen actions={common} isLong>
      <div className={classes.begin}>
        <h1>Places from a photo</h1>
        <p>
          Taken straight on, with two distances on it that are known: a bore, two bolts, a rule held beside. It stays in
          this browser until the draft is handed in.
        </p>
        {front && front.wheels.length > 0 ? (
          <FileButton accept="image/*" onChange={choose}>
            {(props) => <Button {...props}>Choose a photo of the front</Button>}
          </FileButton>
        ) : (
          <p>Say first what the chains, belts or gears pass: then there are axes to point at.</p>
        )}
        {wrong && <p role="alert">{wrong}</p>}
      </div>
    </Screen>
  );
}

interface PointingProps extends PhotoProps {
  ground: Ground;
  front: Schemas['DriveDrawing'];
  onAway: () => void;
}

function Pointing({ draft, writing, front, ground, common, onAway }: PointingProps) {
  const [pointed, put, forget] = useDraft<Pointed>(`writer.${draft.id}.photo`, NOTHING);
  const [aim, setAim] = useState<Aim>({ sort: 'known', n: 0 });
  const [cross, setCross] = useState<Point>([ground.width / 2, ground.height / 2]);
  const [zoom, setZoom] = useState(1);
  const marks = marksOf(pointed);
  const read = useQuery(photoQuery(draft.id, draft.changes, marks)).data;
  const shafts = oneOfEach(front);
  const aims: Aim[] = [
    ...KNOWN.map((_, n) => ({ sort: 'known' as const, n })),
    ...shafts.map((one) => ({ sort: 'axis' as const, id: one.shaft })),
    ...front.wheels.map((one) => ({ sort: 'teeth' as const, id: one.id })),
  ];
  const next = (by: number) => {
    const n = aims.findIndex((one) => isAim(one, aim));
    setAim(aims[(n + by + aims.length) % aims.length] ?? aim);
  };
  const point = (at: Point) => {
    setCross(at);
    put(pointAt(pointed, aim, at));
    const isWhole = aim.sort === 'axis' && !(aim.id in pointed.axes);
    if (isWhole) next(1);
  };
  const move = (x: number, y: number, fine: boolean) => {
    const by = (Math.min(ground.width, ground.height) * STEP * (fine ? FINE : 1)) / zoom;
    setCross([
      Math.max(0, Math.min(ground.width, cross[0] + x * by)),
      Math.max(0, Math.min(ground.height, cross[1] + y * by)),
    ]);
  };
  const arrows = (['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const).flatMap((key) => {
    const x = key === 'ArrowLeft' ? -1 : key === 'ArrowRight' ? 1 : 0;
    const y = key === 'ArrowUp' ? -1 : key === 'ArrowDown' ? 1 : 0;
    const label = `cross ${key.slice('Arrow'.length).toLowerCase()}`;
    return [
      { keys: [key], shift: false, label, quiet: true, run: () => move(x, y, false) },
      { keys: [key], shift: true, label: `${label}, a little`, quiet: true, run: () => move(x, y, true) },
    ];
  });
  const actions: KeyAction[] = [
    { keys: ['Enter'], label: 'point here', run: () => point(cross) },
    { keys: ['n'], label: 'next', run: () => next(1) },
    { keys: ['v'], label: 'the one before', quiet: true, run: () => next(-1) },
    { keys: ['Backspace'], label: 'point taken back', quiet: true, run: () => put(takeBack(pointed, aim)) },
    { keys: ['+'], label: 'larger', shown: '+ −', run: () => setZoom(Math.min(MOST_ZOOM, zoom * 2)) },
    { keys: ['-'], label: 'smaller', quiet: true, run: () => setZoom(Math.max(1, zoom / 2)) },
    ...arrows,
  ];
  const teeth = aim.sort === 'teeth' ? (pointed.teeth[aim.id] ?? []).length : 0;
  return (
    <Screen actions={[...actions, ...common]}>
      <div className={classes.photo}>
        <h1>{asked(aim, shafts, front)}</h1>
        <PhotoGround ground={ground} pointed={pointed} aim={aim} cross={cross} zoom={zoom} onPoint={point} />
        <div className={classes.beside}>
          <h2>Known distances</h2>
          {KNOWN.map((name, n) => (
            <div key={name} className={classes.distance}>
              <Choice
                isNow={isAim(aim, { sort: 'known', n })}
                isDone={pointed.known[n]?.points.length === 2}
                onChoose={() => setAim({ sort: 'known', n })}
              >
                {name}
              </Choice>
              <TextInput
                aria-label={`${name}, mm`}
                placeholder="mm"
                inputMode="decimal"
                value={pointed.known[n]?.mm ?? ''}
                onChange={(event) => {
                  const mm = event.currentTarget.value;
                  put({ known: pointed.known.map((one, at) => (at === n ? { ...one, mm } : one)) });
                }}
                onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              />
            </div>
          ))}
          <h2>Axes</h2>
          {shafts.map((one) => {
            const place = read?.places.find((at) => at.shaft === one.shaft);
            return (
              <Choice
                key={one.shaft}
                isNow={isAim(aim, { sort: 'axis', id: one.shaft })}
                isDone={one.shaft in pointed.axes}
                onChoose={() => setAim({ sort: 'axis', id: one.shaft })}
              >
                {one.name} {place && <small>{`${place.x_mm}, ${place.y_mm} mm`}</small>}
              </Choice>
            );
          })}
          <h2>Teeth, counted by tapping</h2>
          {front.wheels.map((one) => (
            <Choice
              key={one.id}
              isNow={isAim(aim, { sort: 'teeth', id: one.id })}
              isDone={one.teeth !== null}
              onChoose={() => setAim({ sort: 'teeth', id: one.id })}
            >
              {one.name} <small>{pointed.teeth[one.id]?.length || one.teeth || ''}</small>
            </Choice>
          ))}
        </div>
        <div className={classes.foot}>
          <p>
            {read?.said.join(' ')} {read?.wrong}
          </p>
          {writing.trouble && <p role="alert">{writing.trouble.sentence}</p>}
          <Button
            variant="default"
            onClick={() => {
              forget(); // what was pointed at is of this photo
              onAway();
            }}
          >
            Another photo
          </Button>
          {draft.may_write && aim.sort === 'teeth' && (
            <Button
              disabled={teeth === 0}
              onClick={() =>
                void writing.write({
                  does: 'set',
                  at: `/drive/wheels/${aim.id}/teeth`,
                  value: teeth,
                  source: 'counted',
                })
              }
            >
              {teeth} teeth
            </Button>
          )}
          {draft.may_write && (
            <Button disabled={read?.wrong !== ''} onClick={() => void writing.putPhoto(marks)}>
              Take the places over
            </Button>
          )}
        </div>
      </div>
    </Screen>
  );
}

/** What is to be pointed at now. */
function asked(aim: Aim, shafts: Schemas['DrawnWheel'][], front: Schemas['DriveDrawing']): string {
  if (aim.sort === 'known')
    return aim.n === 0 ? 'Point at both ends of a distance that you know' : 'And at one across to it';
  const wheel =
    (aim.sort === 'axis' ? shafts.find((one) => one.shaft === aim.id) : undefined) ??
    front.wheels.find((one) => one.id === aim.id);
  return aim.sort === 'axis'
    ? `Where is the axis of the ${named(wheel)}?`
    : `Tap each tooth of the ${named(wheel)}, once round`;
}

const named = (wheel: Schemas['DrawnWheel'] | undefined): string => (wheel?.name ?? 'wheel').toLowerCase();

interface ChoiceProps {
  isNow: boolean;
  isDone: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}

function Choice({ isNow, isDone, onChoose, children }: ChoiceProps) {
  return (
    <UnstyledButton
      className={classes.choice}
      aria-pressed={isNow}
      onClick={(event) => {
        event.currentTarget.blur(); // Enter is a point from now on
        onChoose();
      }}
    >
      <span>{children}</span>
      {isDone && '✓'}
    </UnstyledButton>
  );
}
