/** Looking back over the engines of a family: what its clearances, gaps, cams, pulls and minutes came to, and what happened on the way. */
import { Table, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearch } from '@tanstack/react-router';
import { Suspense, useState } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import { onDemand } from '../app/later';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { backQuery } from './api';
import { BY, type By, groupsOf, inUnit } from './figures';
import classes from './LookingBack.module.css';

const DotPlot = onDemand(async () => (await import('./DotPlot')).DotPlot);
type Series = Schemas['BackSeries'];
const keyOf = (one: Series) => `${one.sort} ${one.of} ${one.name} ${one.unit}`;

export function LookingBack() {
  const { code } = useParams({ from: '/shell/families/$code/back' });
  const { serial = '' } = useSearch({ from: '/shell/families/$code/back' });
  const { data, error, isPending, refetch } = useQuery(backQuery(code));
  const [chosen, setChosen] = useState('');
  const [by, setBy] = useState<By>('place');
  if (isPending) return <Waiting what="Looking back" />;
  if (!data)
    return (
      <Notice title="Nothing can be looked back at" retry={() => refetch()}>
        {error?.message}
      </Notice>
    );
  const series = data.series.find((one) => keyOf(one) === chosen) ?? data.series[0];
  const move = (step: number) => {
    const at = (series ? data.series.indexOf(series) : 0) + step;
    const next = data.series[Math.max(0, Math.min(data.series.length - 1, at))];
    if (next) setChosen(keyOf(next));
  };
  return (
    <>
      <main className={page.page}>
        <h1>
          <Link to="/families/$code" params={{ code }}>
            {data.name}
          </Link>
          , looking back
        </h1>
        <p className={page.lead}>
          {data.engines === 1 ? 'One engine' : `${data.engines} engines`} of this shop
          {data.left > 0 && `, ${data.left} of them still being drawn up`}. As tables (CSV):{' '}
          <a href={`/api/back/${code}/figures.csv`}>figures</a>,{' '}
          <a href={`/api/back/${code}/happenings.csv`}>what happened</a>,{' '}
          <a href={`/api/back/${code}/minutes.csv`}>minutes</a>.
        </p>
        {!series && (
          <p className={classes.none}>
            {data.left > 0 ? 'Drawing up what was measured.' : 'No engine of this family has come to a figure yet.'}
          </p>
        )}
        {series && (
          <div className={classes.two}>
            <Choices series={data.series} chosen={series} onChoose={(one) => setChosen(keyOf(one))} />
            <section className={classes.sheet} aria-label={series.name}>
              <header>
                <h2>{series.name}</h2>
                <fieldset className={classes.by} aria-label="By">
                  {BY.map((one) => (
                    <UnstyledButton key={one} aria-pressed={one === by} onClick={() => setBy(one)}>
                      by {one}
                    </UnstyledButton>
                  ))}
                </fieldset>
              </header>
              <Suspense fallback={<div className={classes.plot} />}>
                <DotPlot series={series} by={by} serial={serial} />
              </Suspense>
              <Groups series={series} by={by} />
            </section>
          </div>
        )}
        <div className={classes.below}>
          <Happenings rows={data.happenings} />
          <Minutes rows={data.minutes} />
        </div>
      </main>
      <KeyStrip
        actions={[
          { keys: ['ArrowDown'], label: 'next', run: () => move(1) },
          { keys: ['ArrowUp'], label: 'before', run: () => move(-1) },
          {
            keys: ['b'],
            label: 'by place, gauge, month',
            run: () => setBy(BY[(BY.indexOf(by) + 1) % BY.length] ?? 'place'),
          },
        ]}
      />
    </>
  );
}

const CALLED: Record<string, string> = {
  clearance: 'Clearances',
  'valve gap': 'Valve gaps',
  timing: 'Camshafts',
  pull: 'Bolts',
};

function Choices({ series, chosen, onChoose }: { series: Series[]; chosen: Series; onChoose: (one: Series) => void }) {
  const sorts = [...new Set(series.map((one) => one.sort))];
  return (
    <nav className={classes.choices} aria-label="What came out">
      {sorts.map((sort) => (
        <div key={sort}>
          <h3>{CALLED[sort] ?? sort}</h3>
          {series
            .filter((one) => one.sort === sort)
            .map((one) => (
              <UnstyledButton
                key={keyOf(one)}
                aria-current={one === chosen ? 'true' : undefined}
                onClick={() => onChoose(one)}
              >
                <span>{one.name}</span> <small>{one.spread.times}</small>
              </UnstyledButton>
            ))}
        </div>
      ))}
    </nav>
  );
}

function Groups({ series, by }: { series: Series; by: By }) {
  const said = (value: number | null) => (value === null ? '–' : inUnit(value, series.unit));
  const rows = [...groupsOf(series, by), { name: 'all', spread: series.spread }];
  return (
    <Table className={page.table}>
      <Table.Thead>
        <Table.Tr>
          {[by, 'figures', 'mean', 'middle one', 'scatter', 'least', 'most'].map((label) => (
            <Table.Th key={label}>{label}</Table.Th>
          ))}
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {rows.map(({ name, spread }) => (
          <Table.Tr key={name}>
            <Table.Td>{name === 'all' ? <b>all</b> : name}</Table.Td>
            <Table.Td>{spread.times}</Table.Td>
            {[spread.mean, spread.median, spread.scatter, spread.least, spread.most].map((value, n) => (
              <Table.Td key={n}>{said(value)}</Table.Td>
            ))}
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

function Happenings({ rows }: { rows: Schemas['BackHappening'][] }) {
  return (
    <section className={classes.sheet} aria-label="What happened">
      <h2>What happened on the way</h2>
      {rows.length === 0 && <p className={classes.soft}>Nothing was opened again, moved or decided.</p>}
      <ul>
        {rows.map((row) => (
          <li key={`${row.sort} ${row.title}`}>
            <b>{row.count}×</b> {row.title} <em>{row.sort}</em>
            {row.because.map((why) => (
              <small key={why}>{why}</small>
            ))}
            <small>
              {row.engines.map((one) => (
                <Link key={one} to="/bench/$serial" params={{ serial: one }}>
                  {one}
                </Link>
              ))}
            </small>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Minutes({ rows }: { rows: Schemas['BackMinutes'][] }) {
  return (
    <section className={classes.sheet} aria-label="Minutes">
      <h2>Minutes a step took</h2>
      {rows.length === 0 && <p className={classes.soft}>No step was timed yet.</p>}
      {rows.length > 0 && (
        <Table className={page.table}>
          <Table.Thead>
            <Table.Tr>
              {['step', 'times', 'middle one', 'least', 'most'].map((label) => (
                <Table.Th key={label}>{label}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map((row) => (
              <Table.Tr key={row.step}>
                <Table.Td>{row.step}</Table.Td>
                <Table.Td>{row.spread.times}</Table.Td>
                <Table.Td>{Math.round(row.spread.median)}</Table.Td>
                <Table.Td>{Math.round(row.spread.least)}</Table.Td>
                <Table.Td>{Math.round(row.spread.most)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
    </section>
  );
}
