/** Which head gasket by the highest piston; compression ratio and squish of every cylinder, and what if. */
import { NativeSelect, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { sayFine, type Voice } from '../app/saying';
import { chamberQuery } from './api';
import classes from './FitDrawing.module.css';

interface ChamberProps {
  bench: Schemas['Bench'];
  says: string;
  voice: Voice;
}

export function Chamber({ bench, says, voice }: ChamberProps) {
  const [gasket, setGasket] = useState('');
  const [skimmed, setSkimmed] = useState('');
  const [asked] = useDebouncedValue({ gasket, skimmed_mm: Number(skimmed.replace(',', '.')) || 0 }, 250);
  const { data, error } = useQuery({
    ...chamberQuery(bench.engine.serial, asked, bench.entries),
    placeholderData: (before) => before,
  });
  return (
    <section className={classes.chamber} aria-label="Gasket and compression">
      <h2>{data?.says ?? says}</h2>
      <div className={classes.whatIf}>
        <NativeSelect
          label="What if gasket"
          data={[
            { value: '', label: 'as measured' },
            ...(data?.gaskets ?? []).map((one) => ({ value: one, label: one })),
          ]}
          value={gasket}
          onChange={(event) => setGasket(event.currentTarget.value)}
        />
        <TextInput
          label="Skimmed, mm"
          inputMode="decimal"
          value={skimmed}
          onChange={(event) => setSkimmed(event.currentTarget.value.slice(0, 6))}
        />
      </div>
      {error && <p role="alert">{error.message}</p>}
      {data?.rows.map((row) => (
        <p key={row.cylinder} data-look={row.notes.length > 0}>
          {row.cylinder}: {row.ratio != null ? `${row.ratio.toFixed(1)} : 1` : ''}, squish{' '}
          {sayFine(row.squish_mm, voice.factor)}
          {row.notes.length > 0 && ` · ${row.notes.join('; ')}`}
        </p>
      ))}
    </section>
  );
}
