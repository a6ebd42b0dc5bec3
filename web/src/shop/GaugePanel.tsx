/** One gauge: tried against another today, and what it was used on, for the day it is found out of true. */
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { type FormEvent, Suspense, useState } from 'react';
import { askAgain, isNow } from '../api/again';
import { client, type Schemas, sentenceOf, unwrap } from '../api/client';
import { onDemand } from '../app/later';
import { usePerson } from '../app/session';
import { gaugeHistoryQuery, gaugesQuery } from './api';
import classes from './Gauges.module.css';

const Drift = onDemand(async () => (await import('../back/Drift')).Drift);
type Gauge = Schemas['GaugeOut'];

interface GaugePanelProps {
  gauge: Gauge;
  onEdit: ((code: string) => void) | undefined;
}

export function GaugePanel({ gauge, onEdit }: GaugePanelProps) {
  const { person } = usePerson();
  const history = useQuery(gaugeHistoryQuery(gauge.code)).data;
  return (
    <div className={classes.panel}>
      <section>
        <h2>Tried against another</h2>
        {person.role !== 'viewer' && <CheckForm gauge={gauge} />}
        <ul>
          {history?.checks.map((check) => (
            <li key={check.at}>
              <b>
                {check.shown} against {check.true} {gauge.unit}
              </b>{' '}
              ({check.off > 0 ? '+' : ''}
              {check.off}) by {check.against}, {check.at.slice(0, 10)}, {check.by_name}
              {check.note && ` · ${check.note}`}
            </li>
          ))}
        </ul>
        {history && history.repeats > 0 && (
          <p>
            Repeated {history.repeats} times on engines, it came back within{' '}
            <b>
              ± {history.scatter.toFixed(4)} {gauge.unit}
            </b>{' '}
            (one standard deviation).
          </p>
        )}
        {history && history.checks.length > 1 && (
          <Suspense fallback={null}>
            <Drift checks={history.checks} unit={gauge.unit} u={gauge.expanded_uncertainty} />
          </Suspense>
        )}
        {history?.checks.length === 0 && <p className={classes.soft}>Never tried against another.</p>}
        {onEdit && (
          <Button variant="default" onClick={() => onEdit(gauge.code)}>
            Change what is known of it
          </Button>
        )}
      </section>
      <section>
        <h2>Used on {history ? `${history.engines.length} engines` : ''}</h2>
        <p className={classes.engines}>
          {history?.engines.map((serial) => (
            <Link key={serial} to="/bench/$serial" params={{ serial }}>
              {serial}
            </Link>
          ))}
        </p>
        <ul>
          {history?.uses.slice(0, 40).map((use) => (
            <li key={`${use.serial} ${use.seq}`}>
              {use.serial} #{use.seq}, {use.kind.replace('_', ' ')}, {use.at.slice(0, 16).replace('T', ' ')},{' '}
              {use.by_name}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function CheckForm({ gauge }: { gauge: Gauge }) {
  const queries = useQueryClient();
  const all = useQuery(gaugesQuery).data ?? [];
  const others = all.filter((one) => one.unit === gauge.unit && one.code !== gauge.code && !one.overdue);
  const [against, setAgainst] = useState('');
  const [figures, setFigures] = useState({ true: '', shown: '', note: '' });
  const [wrong, setWrong] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const number = (text: string) => Number(text.replace(',', '.'));
    const body = {
      against: against || (others[0]?.code ?? ''),
      true: number(figures.true),
      shown: number(figures.shown),
      note: figures.note,
    };
    try {
      const path = { code: gauge.code };
      isNow(
        queries,
        gaugesQuery.queryKey,
        unwrap(await client.POST('/api/gauges/{code}/checks', { params: { path }, body })),
      );
      await askAgain(queries, { queryKey: gaugeHistoryQuery(gauge.code).queryKey });
      setFigures({ true: '', shown: '', note: '' });
      setWrong('');
    } catch (error) {
      setWrong(sentenceOf(error));
    }
  };
  if (others.length === 0) return <p className={classes.soft}>No other gauge measures the same and is in date.</p>;
  return (
    <form className={classes.check} onSubmit={submit}>
      <NativeSelect
        label="Against"
        value={against}
        data={others.map((one) => ({ value: one.code, label: `${one.code} ${one.name}` }))}
        onChange={(event) => setAgainst(event.currentTarget.value)}
      />
      {(
        [
          ['true', `That showed, ${gauge.unit}`],
          ['shown', `This showed, ${gauge.unit}`],
          ['note', 'Note, such as air pressure'],
        ] as const
      ).map(([key, label]) => (
        <TextInput
          key={key}
          label={label}
          required={key !== 'note'}
          withAsterisk={false}
          value={figures[key]}
          onChange={(event) => setFigures({ ...figures, [key]: event.currentTarget.value })}
        />
      ))}
      <Button type="submit">Record the check</Button>
      {wrong && <p role="alert">{wrong}</p>}
    </form>
  );
}
