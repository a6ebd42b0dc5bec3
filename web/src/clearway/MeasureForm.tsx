/** A gap that was measured: squeezed clay after turning over, or a dial on the shut valve at TDC. */
import { Button, NativeSelect, TextInput, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import type { Voice } from '../app/saying';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import { gaugesQuery } from '../shop/api';
import classes from './MeasureForm.module.css';

interface MeasureFormProps {
  bench: Schemas['Bench'];
  valves: Schemas['ClearwayShown']['valves'];
  voice: Voice;
}

const EMPTY = { valve: '', how: '', text: '', gauge: '' };
const HOWS = [
  { how: 'clay', title: 'Clay', detail: 'the least in turning over twice' },
  { how: 'dial', title: 'Dial', detail: 'drop of the shut valve, piston at TDC' },
] as const;
const LENGTHS = new Set(['dial', 'micrometer', 'caliper', 'feeler', 'bore']);

export function MeasureForm({ bench, valves, voice }: MeasureFormProps) {
  const { serial } = bench.engine;
  const [draft, change, forget] = useDraft(`${serial}.gap`, EMPTY);
  const [wrong, setWrong] = useState('');
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const gauges = (useQuery(gaugesQuery).data ?? []).filter((one) => LENGTHS.has(one.kind));
  const valve = valves.find((one) => one.key === draft.valve);
  const how = HOWS.find((one) => one.how === draft.how);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!valve || !how || !draft.text.trim()) return;
    const { camshaft, cylinder, place } = valve;
    const outcome = await record(`gap:${valve.key}`, `Gap of ${valve.name}`, draft.text, {
      kind: 'gap_measured',
      ...{ camshaft, cylinder, valve: valve.valve, place },
      how: how.how,
      gap: { text: draft.text.trim(), unit: voice.unit },
      gauge: draft.gauge || null,
      note: '',
    });
    setWrong(outcome.kind === 'refused' ? outcome.sentence : '');
    if (outcome.kind !== 'refused') forget();
  };
  const measured = bench.state.clearway?.measured ?? [];
  return (
    <section className={classes.measure} aria-label="Measured">
      <h2>Measured at this engine</h2>
      {measured.length > 0 && (
        <ul>
          {measured.map((one) => (
            <li key={`${one.name} ${one.how}`} data-verdict={one.verdict}>
              <b>{one.name}</b> least {one.least_mm.toFixed(2)} ± {one.expanded_mm.toFixed(2)} mm by {one.how}, wanted{' '}
              {one.wanted_mm.toFixed(1)}: <strong>{one.verdict}</strong>, {one.by}
            </li>
          ))}
        </ul>
      )}
      {bench.engine.may_record && valves.length > 0 && (
        <form onSubmit={submit}>
          <NativeSelect
            label="Valve"
            value={draft.valve}
            onChange={(event) => change({ valve: event.currentTarget.value })}
            data={[{ value: '', label: 'which' }, ...valves.map((one) => ({ value: one.key, label: one.name }))]}
          />
          <fieldset aria-label="How">
            {HOWS.map((one) => (
              <UnstyledButton
                key={one.how}
                aria-pressed={draft.how === one.how}
                onClick={() => change({ how: one.how })}
              >
                <b>{one.title}</b>
                <span>{one.detail}</span>
              </UnstyledButton>
            ))}
          </fieldset>
          <TextInput
            label={`Gap, ${voice.factor.label}`}
            inputMode="decimal"
            value={draft.text}
            onChange={(event) => change({ text: event.currentTarget.value.slice(0, 20) })}
          />
          <NativeSelect
            label="Read with"
            value={draft.gauge}
            onChange={(event) => change({ gauge: event.currentTarget.value })}
            data={[
              { value: '', label: 'not named' },
              ...gauges.map((one) => ({ value: one.code, label: `${one.code} ${one.name}` })),
            ]}
          />
          <Button type="submit" size="md" disabled={!valve || !how || !draft.text.trim()}>
            Record
          </Button>
        </form>
      )}
      {wrong && <p role="alert">{wrong}</p>}
    </section>
  );
}
