/** What may meet: the map of two shafts walked by keys, the least gaps, how far each camshaft may be moved and where it rests. */
import { UnstyledButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import type { KeyAction } from '../app/keys';
import { Notice, Waiting } from '../app/Notice';
import { say, sayLength, type Voice } from '../app/saying';
import type { TwinOf } from '../motion/api';
import { atQuery, type ClearwayOf, clearwayQuery, mapQuery } from './api';
import classes from './Clearway.module.css';
import { MapDrawing, type Point } from './MapDrawing';
import { WalkedSection } from './WalkedSection';

const CYCLE = 720;
const REST_MS = 150;

interface ClearwayProps {
  of: ClearwayOf;
  /** The twin as its card has it, which the map is drawn by. */
  twin: TwinOf;
  voice: Voice;
  /** Where they stand, where that is known: crank and each camshaft. */
  stands?: Record<string, number>;
  keys?: KeyAction[];
  children?: ReactNode;
}

interface Pair {
  first: string;
  second: string;
  names: [string, string];
}

function pairsOf(shown: Schemas['ClearwayShown']): Pair[] {
  const name = (id: string) => shown.cams.find((cam) => cam.camshaft === id)?.name ?? id;
  return [
    ...shown.cams
      .filter((cam) => cam.is_known)
      .map((cam): Pair => ({ first: 'crank', second: cam.camshaft, names: ['crank', cam.name] })),
    ...shown.pairs.map(([first = '', second = '']): Pair => ({ first, second, names: [name(first), name(second)] })),
  ];
}

export function Clearway(props: ClearwayProps) {
  const { data, error, isPending } = useQuery(clearwayQuery(props.of));
  if (isPending) return <Waiting what="Working out what may meet" />;
  if (error) return <Notice title="The clearway cannot be shown">{error.message}</Notice>;
  return <Shown {...props} shown={data} />;
}

function Shown({
  of,
  twin,
  voice,
  stands = {},
  keys = [],
  children,
  shown,
}: ClearwayProps & { shown: Schemas['ClearwayShown'] }) {
  const pairs = pairsOf(shown);
  const [n, setN] = useState(0);
  const pair = pairs[n % Math.max(1, pairs.length)];
  const [point, setPoint] = useState<Point>({ at: stands.crank ?? 0, to: stands[pair?.second ?? ''] ?? 0 });
  const move = (at: number, to: number) =>
    setPoint(({ at: was, to: before }) => ({ at: (was + at + CYCLE) % CYCLE, to: (before + to + CYCLE) % CYCLE }));
  const arrow = (key: string, at: number, to: number, shown?: string): KeyAction[] => [
    {
      keys: [key],
      ...(shown ? { shown } : {}),
      label: `${at ? 'first' : 'second'} shaft 2°`,
      quiet: !shown,
      shift: false,
      run: () => move(2 * at, 2 * to),
    },
    { keys: [key], label: '20°', quiet: true, shift: true, run: () => move(20 * at, 20 * to) },
  ];
  return (
    <>
      <main className={classes.clearway}>
        <section className={classes.ground} aria-label="Map">
          {pair ? (
            <Walked of={of} twin={twin} voice={voice} pair={pair} point={point} />
          ) : (
            <div className={classes.nothing}>
              <h1>Too little is known to draw what may meet</h1>
              <p>{shown.would_add}</p>
            </div>
          )}
          {pairs.length > 1 && (
            <fieldset className={classes.pairs} aria-label="Which shafts">
              {pairs.map((one, at) => (
                <UnstyledButton key={`${one.first} ${one.second}`} aria-pressed={one === pair} onClick={() => setN(at)}>
                  {one.names.join(' · ')}
                </UnstyledButton>
              ))}
            </fieldset>
          )}
        </section>
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and whoever has no mouse scrolls it by keys */}
        <aside className={classes.side} aria-label="Gaps and camshafts" tabIndex={0}>
          {children}
          <Gaps shown={shown} voice={voice} />
          <Cams shown={shown} voice={voice} />
          <Parks parks={shown.parks} voice={voice} />
        </aside>
      </main>
      <KeyStrip
        actions={[
          ...arrow('ArrowRight', 1, 0, '← →'),
          ...arrow('ArrowLeft', -1, 0),
          ...arrow('ArrowUp', 0, 1, '↑ ↓'),
          ...arrow('ArrowDown', 0, -1),
          ...(pairs.length > 1 ? [{ keys: ['c'], label: 'next shafts', run: () => setN((n + 1) % pairs.length) }] : []),
          ...keys,
        ]}
      />
    </>
  );
}

interface WalkedProps {
  of: ClearwayOf;
  twin: TwinOf;
  voice: Voice;
  pair: Pair;
  point: Point;
}

function Walked({ of, twin, voice, pair, point }: WalkedProps) {
  const { data: map } = useQuery(mapQuery(of, pair.first, pair.second));
  const [resting] = useDebouncedValue(point, REST_MS);
  const { first, second } = pair;
  const { data: here } = useQuery(atQuery(of, { first, second, ...resting }));
  const own = (shaft: string, deg: number) => `${Math.round(shaft === 'crank' ? deg : deg / 2)}°`;
  return (
    <>
      <div className={classes.here} role="status">
        <h1>
          {pair.names[0]} {own(first, point.at)}, {pair.names[1]} {own(second, point.to)}
        </h1>
        {here?.gaps[0] && <span>{nearest(here.gaps[0], voice)}</span>}
        {here?.rest && <span>{here.rest}</span>}
      </div>
      <div className={classes.drawings}>
        {map && <MapDrawing map={map} names={pair.names} here={point} label={`Map of ${pair.names.join(' and ')}`} />}
        {here?.gaps[0] && (
          <WalkedSection
            of={twin}
            places={{ [first]: point.at, [second]: point.to }}
            cylinder={here.gaps[0].cylinder}
            seenFrom={voice.seenFrom}
          />
        )}
      </div>
    </>
  );
}

function nearest(gap: Schemas['GapRow'], voice: Voice): string {
  const spare = `${sayLength(gap.gap_mm, voice.factor)} ± ${sayLength(gap.expanded_mm, voice.factor)}`;
  return gap.gap_mm < gap.expanded_mm
    ? `${gap.words.replace(' to ', ' meets ')} (${spare})`
    : `nearest ${gap.words}: ${spare}`;
}

function Gaps({ shown, voice }: { shown: Schemas['ClearwayShown']; voice: Voice }) {
  if (shown.gaps.length === 0 && shown.unknown.length === 0) return null;
  return (
    <section className={classes.block} aria-label="Least gaps">
      <h2>Least gaps, everything timed</h2>
      <table>
        <thead>
          <tr>
            <th>of</th>
            <th>gap</th>
            <th>wanted</th>
            <th>at</th>
          </tr>
        </thead>
        <tbody>
          {shown.gaps.map((gap) => (
            <tr key={gap.words} data-near={gap.gap_mm < gap.wanted_mm}>
              <td>{gap.words}</td>
              <td>
                <b>{sayLength(gap.gap_mm, voice.factor)}</b> ± {sayLength(gap.expanded_mm, voice.factor)}
                {gap.known_by === 'measured' && <span>measured</span>}
              </td>
              <td>
                {sayLength(gap.wanted_mm, voice.factor)}
                <span>{gap.by_book ? 'by the book' : 'as the trade has it'}</span>
              </td>
              <td>{Math.round(gap.at_deg)}°</td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.unknown.length > 0 && <p>Not known: {shown.unknown.join(', ')}.</p>}
      {shown.would_add && <p>{shown.would_add}</p>}
      <p>
        As the document describes the engine: flat heads, rigid parts, no carbon. Turn by hand, feeling, all the same.
      </p>
    </section>
  );
}

function Parks({ parks, voice }: { parks: Schemas['ParkPlace'][]; voice: Voice }) {
  if (parks.length === 0) return null;
  return (
    <section className={classes.block} aria-label="Where the book parks">
      <h2>Where the book parks the crank</h2>
      <ul>
        {parks.map((one) => (
          <li key={one.name}>
            <b>{one.name}</b>
            {one.words.map((words) => (
              <span key={words}>{say(words, voice)}</span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Cams({ shown, voice }: { shown: Schemas['ClearwayShown']; voice: Voice }) {
  const known = shown.cams.filter((cam) => cam.is_known || cam.rests.length > 0);
  if (known.length === 0) return null;
  return (
    <section className={classes.block} aria-label="Camshafts">
      <h2>Camshafts</h2>
      <ul>
        {known.map((cam) => (
          <li key={cam.camshaft}>
            <b>{cam.name}</b>
            {cam.spare_words && <span>From where it is timed {cam.spare_words} before a gap is less than wanted.</span>}
            {cam.rests.length > 0 && (
              <span>
                Rests with {[...new Set(cam.rests.map((rest) => say(rest.words, voice)))].join('; ')}
                {cam.most_nm != null && `; its springs turn it with up to ${Math.round(cam.most_nm)} N·m`}.
              </span>
            )}
            {cam.easiest && <span>Caps are drawn down easiest with {say(cam.easiest, voice)}.</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
