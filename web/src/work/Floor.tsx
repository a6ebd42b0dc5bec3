/** Every engine on a stand: what it waits for, its loose ends, who has it, when it is promised. */
import { Button } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from '@tanstack/react-router';
import { useMemo, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { Clock, useSeconds } from '../app/Clock';
import { KeyStrip } from '../app/KeyStrip';
import { Notice, Waiting } from '../app/Notice';
import { sayLeft } from '../app/saying';
import { usePerson } from '../app/session';
import { useAlarm } from '../app/sound';
import { sayDay } from '../app/times';
import { Verdict } from '../app/Verdict';
import { OF_THE_LEAD, QUESTIONS, useFirstRun } from '../first/kept';
import { floorQuery, type Wanted } from './api';
import classes from './Floor.module.css';
import { FloorFilter } from './FloorFilter';
import { NewEngine } from './NewEngine';
import { hasClock, whom } from './onFloor';
import { Rod } from './Rod';

type Row = Schemas['FloorRow'];
type Page = Schemas['FloorPage'];

const ALL: Wanted = {
  search: '',
  late: false,
  loose_ends: false,
  open_only: false,
  archived: false,
  waits_on: null,
  mine: '',
  page: 1,
};
const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

export function Floor() {
  const { person } = usePerson();
  const [wanted, setWanted] = useState(ALL);
  const [later] = useDebouncedValue(wanted, 150);
  const { data, error, isPending, refetch } = useQuery(floorQuery(later));
  const navigate = useNavigate();
  const search = useRef<HTMLInputElement>(null);
  const [adding, setAdding] = useState(false);
  const mayAdd = person.role !== 'viewer';
  const running = useMemo(
    () => (data?.rows ?? []).map((row) => ({ ends_at: row.clock_at, clears: row.clock_clears })),
    [data?.rows],
  );
  useAlarm(running, useSeconds(running.some((one) => one.ends_at)));
  const openStand = (stand: number) => {
    const row = data?.rows.find((one) => one.stand === stand);
    if (row) navigate({ to: '/bench/$serial', params: { serial: row.serial } });
  };
  const want = (change: Partial<Wanted>) => setWanted((old) => ({ ...old, page: 1, ...change }));
  const stands = DIGITS.map((key) => ({
    keys: [key],
    label: `stand ${key}`,
    quiet: true,
    run: () => openStand(Number(key)),
  }));
  return (
    <>
      <main className={classes.page}>
        <div className={classes.head}>
          <div>
            <h1>{data ? title(data) : 'The floor'}</h1>
            <p>{data && summary(data)}</p>
          </div>
          <span className={classes.ways}>
            <Link to="/wall">for the wall</Link>
            {mayAdd && <Button onClick={() => setAdding(true)}>Put an engine on a stand</Button>}
          </span>
        </div>
        <FirstRunLeft />
        {data?.misfit && (
          <p className={classes.broken} role="alert">
            <b>The shop's file was changed by other hands:</b> {data.misfit}. Verify it, and compare with a backup.
          </p>
        )}
        {isPending && <Waiting what="Walking round the stands" />}
        {error && !data && (
          <Notice title="The floor cannot be shown" retry={() => refetch()}>
            {error.message}
          </Notice>
        )}
        {data && data.engines === 0 && (
          <p className={classes.empty}>
            No engine is on a stand. {mayAdd ? 'Put one on a stand to begin.' : 'A builder puts them there.'}
          </p>
        )}
        {data && data.engines > 0 && (
          <>
            <FloorFilter wanted={wanted} want={want} me={person.username} search={search} />
            {data.rows.length === 0 && <p className={classes.empty}>No engine answers to this. Ask for less.</p>}
            {data.rows.length > 0 && <FloorTable rows={data.rows} mine={person.name} />}
            <Pages page={data} onPage={(page) => want({ page })} />
          </>
        )}
      </main>
      <KeyStrip
        actions={[
          { keys: ['Stand'], shown: '1-9', label: 'open the stand', run: () => undefined },
          ...stands,
          { keys: ['/'], label: 'find', run: () => search.current?.focus() },
          ...(mayAdd ? [{ keys: ['n'], label: 'new engine', run: () => setAdding(true) }] : []),
        ]}
      />
      {mayAdd && <NewEngine opened={adding} onClose={() => setAdding(false)} taken={data?.taken_stands ?? []} />}
    </>
  );
}

/** A first run that was left half-way goes on from here. */
function FirstRunLeft() {
  const [kept] = useFirstRun();
  const { person } = usePerson();
  if (person.role !== 'lead' || kept.isDone || kept.at <= OF_THE_LEAD) return null;
  return (
    <p className={classes.empty}>
      The shop is not set up to its end.{' '}
      <Link to="/first">
        Go on with question {kept.at} of {QUESTIONS}
      </Link>
    </p>
  );
}

interface PagesProps {
  page: Page;
  onPage: (page: number) => void;
}

function Pages({ page, onPage }: PagesProps) {
  if (page.pages < 2) return null;
  return (
    <nav className={classes.pages} aria-label="Pages">
      <Button variant="default" disabled={page.page <= 1} onClick={() => onPage(page.page - 1)}>
        Before
      </Button>
      <span>
        {page.page} of {page.pages}, {page.found} engines
      </span>
      <Button variant="default" disabled={page.page >= page.pages} onClick={() => onPage(page.page + 1)}>
        After
      </Button>
    </nav>
  );
}

function FloorTable({ rows, mine }: { rows: Row[]; mine: string }) {
  return (
    <section aria-label="Engines">
      <div className={classes.labels} aria-hidden="true">
        {['stand', '', 'engine', 'run of work', 'waits for', 'turning', 'loose ends', 'builder', 'promised'].map(
          (label) => (
            <span key={label}>{label}</span>
          ),
        )}
      </div>
      <ul className={classes.table}>
        {rows.map((row) => (
          <li key={row.serial}>
            <Link
              to="/bench/$serial"
              params={{ serial: row.serial }}
              className={classes.row}
              data-mine={row.builder === mine && !row.signed}
            >
              <span className={classes.stand}>{row.stand ?? '–'}</span>
              {/* what it shows changes with the step: then it is another picture */}
              <img
                className={classes.picture}
                src={`/api/engines/${row.serial}/picture.svg?at=${encodeURIComponent(row.step + row.waits_for)}`}
                loading="lazy"
                alt=""
              />
              <span className={classes.engine}>
                <b>{row.serial}</b>
                {row.chain && <em className={classes.misfit}>not as it was sealed</em>}
                <small>
                  {row.family}
                  {row.purpose && ` · ${row.purpose}`}
                </small>
              </span>
              <span className={classes.work}>
                <Rod beads={row.beads} />
                <small>{row.step}</small>
              </span>
              <span className={classes.waits}>
                {row.broken || row.waits_for}{' '}
                {(row.waits_on === 'lead' || row.waits_on === 'clock') && <em className={classes.whom}>{whom(row)}</em>}{' '}
                {row.verdict && <Verdict verdict={row.verdict} />}
                {row.proof && row.proof !== 'degreed' && <small className={classes.proof}>{row.proof}</small>}
                {row.clock_at && <FloorClock row={row} />}
                {row.after && <After row={row} />}
                {row.whereabouts === 'set aside' && <small>set aside: {row.aside_because}</small>}
              </span>
              <span className={classes.turning}>{turning(row)}</span>
              <span className={classes.ends}>{row.loose_ends || '–'}</span>
              <span className={classes.builder}>{row.builder || <small>nobody yet</small>}</span>
              <span className={row.late_days ? classes.late : classes.promised}>
                {row.late_days ? `late by ${row.late_days} day${row.late_days > 1 ? 's' : ''}` : sayDay(row.promised)}
                {!row.signed && row.left_minutes > 0 && <Expected row={row} />}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function FloorClock({ row }: { row: Row }) {
  const now = useSeconds(true);
  if (!hasClock(row, now)) return null;
  return (
    <small>
      {row.clock} · <Clock endsAt={row.clock_at} now={now} />
    </small>
  );
}

/** What is still due after hand-over, and by when. */
function After({ row }: { row: Row }) {
  const isOver = row.after_at != null && Date.parse(row.after_at) < Date.now();
  return (
    <small className={isOver ? classes.late : classes.after}>
      {row.after}
      {row.after_at && `, ${isOver ? 'was due' : 'by'} ${sayDay(row.after_at.slice(0, 10))}`}
    </small>
  );
}

/** The work that is left, and the day on which it will be done; against what was promised. */
function Expected({ row }: { row: Row }) {
  const isLate = row.expected && row.promised && row.expected > row.promised;
  return (
    <small className={isLate ? classes.late : undefined}>
      {sayLeft(row.left_minutes)}
      {row.expected && `, done ${sayDay(row.expected)}`}
    </small>
  );
}

function turning(row: Row) {
  if (row.broken) return <small className={classes.quiet}>not known</small>;
  if (row.signed) return <small className={classes.quiet}>done</small>;
  if (row.free_to_turn && row.careful) return <span className={classes.care}>turn with care</span>;
  return row.free_to_turn ? (
    <span className={classes.free}>free to turn</span>
  ) : (
    <span className={classes.stop}>do not turn</span>
  );
}

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'];

function count(n: number): string {
  return NUMBERS[n] ?? String(n);
}

function title(page: Page): string {
  const { engines, on_stands } = page;
  if (engines === 1 && on_stands === 1) return 'One engine on its stand';
  if (engines === on_stands) return `${count(engines)} engines on stands`;
  return `${count(engines)} engines, ${count(on_stands).toLowerCase()} on stands`;
}

function summary(page: Page): string {
  const say = (n: number, one: string, more: string) => (n ? `${count(n)} ${n === 1 ? one : more}.` : '');
  const parts = [
    say(page.out, 'cam is out and waits for a decision', 'cams are out and wait for decisions'),
    say(page.to_sign, 'record waits for the lead', 'records wait for the lead'),
    say(page.late, 'engine is late', 'engines are late'),
  ];
  return parts.filter(Boolean).join(' ') || (page.engines ? 'Nothing is late and nothing is out.' : '');
}
