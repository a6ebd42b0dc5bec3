/** What wear and machining would do to the timing, so that a late cam may be explained before it is moved. */
import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem } from '../api/client';
import { useDraft } from '../ledger/draft';
import { changedQuery } from './api';
import classes from './Causes.module.css';

const NOTHING = { skimmed_mm: '', gasket_mm: '', longer_percent: '' };
const FIELDS: { key: keyof typeof NOTHING; label: string }[] = [
  { key: 'skimmed_mm', label: 'Off head or deck, mm' },
  { key: 'gasket_mm', label: 'Gasket thicker by, mm' },
  { key: 'longer_percent', label: 'Chain longer by, %' },
];

export function WhatIf({ serial }: { serial: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details className={classes.whatIf} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>What wear and machining would do</summary>
      {open && <Changed serial={serial} />}
    </details>
  );
}

function Changed({ serial }: { serial: string }) {
  const [typed, change] = useDraft(`${serial}.whatif`, NOTHING);
  const [settled] = useDebouncedValue(typed, 200);
  const { data, error } = useQuery(changedQuery(serial, settled));
  const wrong = error instanceof ApiProblem ? error : null;
  return (
    <>
      <div className={classes.fields}>
        {FIELDS.map(({ key, label }) => (
          <TextInput
            key={key}
            label={label}
            inputMode="decimal"
            value={typed[key]}
            error={wrong?.field.endsWith(key) ? wrong.message : undefined}
            onChange={(event) => change({ [key]: event.currentTarget.value.slice(0, 12) })}
          />
        ))}
      </div>
      {data?.cams.map((cam) => (
        <p key={cam.name} className={classes.row}>
          <span>{cam.name}</span> <b>{cam.words}</b>
        </p>
      ))}
      {data?.tensioners.map((one) => (
        <p key={one.name} className={classes.soft}>
          {one.name}: {one.words}
        </p>
      ))}
      {data?.not_known.map((one) => (
        <p key={one} className={classes.soft}>
          {one}
        </p>
      ))}
    </>
  );
}
