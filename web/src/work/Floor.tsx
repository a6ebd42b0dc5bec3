/** Every engine on a stand: what it waits for, its loose ends, who has it, when it is promised. */
import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import { Notice, Waiting } from '../app/Notice';
import { usePerson } from '../app/session';
import { floorQuery } from './api';
import classes from './Floor.module.css';
import { NewEngine } from './NewEngine';
import { Rod } from './Rod';
import { Verdict } from './Verdict';

type Row = Schemas['FloorRow'];

export function Floor() {
  const { data, error, isPending, refetch } = useQuery({ ...floorQuery, refetchInterval: 30_000 });
  const { person } = usePerson();
  const navigate = useNavigate();
  const [adding, setAdding] = useState(false);
  const mayAdd = person.role !== 'viewer';
  const rows = data ?? [];
  const openStand = (stand: number) => {
    const row = rows.find((one) => one.stand === stand);
    if (row) navigate({ to: '/bench/$serial', params: { serial: row.serial } });
  };
  const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
  const keys = digits.map((key) => ({
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
            <h1>{data ? title(rows) : 'The floor'}</h1>
            <p>{summary(rows)}</p>
          </div>
          {mayAdd && <Button onClick={() => setAdding(true)}>Put an engine on a stand</Button>}
        </div>
        {isPending && <Waiting what="Walking round the stands" />}
        {error && (
          <Notice title="The floor cannot be shown" retry={() => refetch()}>
            {error.message}
          </Notice>
        )}
        {data && rows.length === 0 && (
          <p className={classes.empty}>
            No engine is on a stand. {mayAdd ? 'Put one on a stand to begin.' : 'A builder puts them there.'}
          </p>
        )}
        {rows.length > 0 && <FloorTable rows={rows} mine={person.name} />}
      </main>
      <KeyStrip
        actions={[
          { keys: ['Stand'], shown: '1-9', label: 'open the stand', run: () => undefined },
          ...keys,
          ...(mayAdd ? [{ keys: ['n'], label: 'new engine', run: () => setAdding(true) }] : []),
        ]}
      />
      {mayAdd && <NewEngine opened={adding} onClose={() => setAdding(false)} taken={rows.map((row) => row.stand)} />}
    </>
  );
}

function FloorTable({ rows, mine }: { rows: Row[]; mine: string }) {
  return (
    <section aria-label="Engines">
      <div className={classes.labels} aria-hidden="true">
        {['stand', 'engine', 'run of work', 'waits for', 'turning', 'loose ends', 'builder', 'promised'].map(
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
              <span className={classes.engine}>
                <b>{row.serial}</b>
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
                {row.waits_for} {row.verdict && <Verdict verdict={row.verdict} />}
              </span>
              <span className={classes.turning}>{turning(row)}</span>
              <span className={classes.ends}>{row.loose_ends || '–'}</span>
              <span className={classes.builder}>{row.builder || <small>nobody yet</small>}</span>
              <span className={row.late_days ? classes.late : classes.promised}>
                {row.late_days ? `late by ${row.late_days} day${row.late_days > 1 ? 's' : ''}` : sayDay(row.promised)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function turning(row: Row) {
  if (row.signed) return <small className={classes.quiet}>done</small>;
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

function title(rows: Row[]): string {
  const stands = rows.filter((row) => row.stand !== null).length;
  if (rows.length === stands) return `${count(rows.length)} engine${rows.length === 1 ? '' : 's'} on stands`;
  return `${count(rows.length)} engines, ${count(stands).toLowerCase()} on stands`;
}

function summary(rows: Row[]): string {
  const say = (n: number, one: string, more: string) => (n ? `${count(n)} ${n === 1 ? one : more}.` : '');
  const out = rows.filter((row) => row.verdict === 'out' && !row.signed).length;
  const late = rows.filter((row) => row.late_days > 0).length;
  const sign = rows.filter((row) => row.step === 'Sign the record').length;
  const parts = [
    say(out, 'cam is out and waits for a decision', 'cams are out and wait for decisions'),
    say(sign, 'record waits for the lead', 'records wait for the lead'),
    say(late, 'engine is late', 'engines are late'),
  ];
  return parts.filter(Boolean).join(' ') || (rows.length ? 'Nothing is late and nothing is out.' : '');
}

function sayDay(day: string | null | undefined): string {
  if (!day) return 'no date';
  const date = new Date(`${day}T12:00:00`);
  if (date.toDateString() === new Date().toDateString()) return 'today';
  return date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '');
}
