/** A page for a screen on the wall: what runs by the clock, and every engine at work, a page after the other; it needs no hands. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Schemas } from '../api/client';
import { Clock, useSeconds } from '../app/Clock';
import { Notice, Waiting } from '../app/Notice';
import { sayLeft } from '../app/saying';
import { sayDay } from '../app/times';
import { floorQuery } from './api';
import { hasClock, whom } from './onFloor';
import { Rod } from './Rod';
import classes from './Wall.module.css';

type Row = Schemas['FloorRow'];
const ROWS = 8;
const TURN_MS = 12_000;
const AT_WORK = {
  search: '',
  late: false,
  loose_ends: false,
  open_only: true,
  archived: false,
  waits_on: null,
  mine: '',
  page: 1,
};
const TIME = new Intl.DateTimeFormat(undefined, { weekday: 'long', hour: '2-digit', minute: '2-digit' });

export function Wall() {
  const { data, error, isPending, refetch } = useQuery(floorQuery(AT_WORK));
  const now = useSeconds(true);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setTurn((n) => n + 1), TURN_MS);
    return () => clearInterval(timer);
  }, []);
  if (isPending) return <Waiting what="Walking round the stands" />;
  if (!data)
    return (
      <Notice title="The floor cannot be shown" retry={() => refetch()}>
        {error?.message}
      </Notice>
    );
  const pages = Math.max(1, Math.ceil(data.rows.length / ROWS));
  const page = turn % pages;
  const clocks = data.rows
    .filter((row) => hasClock(row, now))
    .sort((a, b) => Date.parse(a.clock_at) - Date.parse(b.clock_at));
  return (
    <main className={classes.wall}>
      <header>
        <h1>{data.found === 1 ? 'One engine at work' : `${data.found} engines at work`}</h1>
        <time>{TIME.format(new Date(now))}</time>
      </header>
      {clocks.length > 0 && (
        <ul className={classes.clocks} aria-label="Running by the clock">
          {clocks.slice(0, 4).map((row) => (
            <li key={row.serial} data-over={Date.parse(row.clock_at) < now}>
              <b>{row.stand ?? row.serial}</b>
              <span>
                {row.clock}
                <Clock endsAt={row.clock_at} now={now} />
              </span>
            </li>
          ))}
        </ul>
      )}
      <ul className={classes.rows} aria-label="Engines at work">
        {data.rows.slice(page * ROWS, (page + 1) * ROWS).map((row) => (
          <WallRow key={row.serial} row={row} />
        ))}
      </ul>
      {pages > 1 && (
        <footer>
          {Array.from({ length: pages }, (_, n) => n).map((n) => (
            <i key={n} data-now={n === page} />
          ))}
        </footer>
      )}
      {error && <p className={classes.old}>The server does not answer; this is how it stood before.</p>}
    </main>
  );
}

function WallRow({ row }: { row: Row }) {
  return (
    <li data-late={row.late_days > 0}>
      <b className={classes.stand}>{row.stand ?? '–'}</b>
      <span>
        <b>{row.serial}</b>
        <small>{row.family}</small>
      </span>
      <span>
        <Rod beads={row.beads} />
        <small>{row.step}</small>
      </span>
      <span>
        <b>{row.broken || row.waits_for}</b>
        <small data-whom={row.waits_on}>{whom(row)}</small>
      </span>
      <span className={row.free_to_turn ? (row.careful ? classes.care : classes.free) : classes.stop}>
        {row.free_to_turn ? (row.careful ? 'turn with care' : 'free to turn') : 'do not turn'}
      </span>
      <span className={classes.due}>
        {row.late_days ? <b>late by {row.late_days} d</b> : sayDay(row.promised)}
        {row.left_minutes > 0 && <small>{sayLeft(row.left_minutes)}</small>}
        {row.expected && row.promised && row.expected > row.promised && <small>done {sayDay(row.expected)}</small>}
      </span>
    </li>
  );
}
