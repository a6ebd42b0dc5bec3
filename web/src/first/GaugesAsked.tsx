/** Which gauges lie on the shelf: usual ones by a tick, all others on their own page. */
import { Checkbox } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { sentenceOf } from '../api/client';
import { gaugesQuery } from '../shop/api';
import { inUnit } from '../shop/kinds';
import { Asked } from './Asked';
import { useAddGauges, usualGaugesQuery } from './api';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

export function GaugesAsked({ way, onDone }: AskedOf) {
  const usual = useQuery(usualGaugesQuery).data ?? [];
  const there = new Set((useQuery(gaugesQuery).data ?? []).map((gauge) => gauge.code));
  const [ticked, setTicked] = useState<string[]>([]);
  const add = useAddGauges();
  const wanted = usual.filter((gauge) => ticked.includes(gauge.code) && !there.has(gauge.code));
  const tick = (code: string, isOn: boolean) => setTicked(isOn ? [...ticked, code] : ticked.filter((c) => c !== code));
  return (
    <Asked
      way={way}
      question="What lies on the shelf?"
      hint="Each is taken to be as right as the standards let a new one be, until you enter what its certificate says. Others are added under Gauges."
      on={wanted.length > 0 ? `Put ${wanted.length} on the shelf` : 'Go on'}
      pending={add.isPending}
      wrong={add.error ? sentenceOf(add.error) : undefined}
      onGo={() => add.mutate(wanted, { onSuccess: onDone })}
    >
      <fieldset className={classes.list}>
        <legend>Gauges and wrenches</legend>
        {usual.map((gauge) => (
          <Checkbox
            key={gauge.code}
            className={classes.line}
            checked={ticked.includes(gauge.code) || there.has(gauge.code)}
            disabled={there.has(gauge.code)}
            onChange={(event) => tick(gauge.code, event.currentTarget.checked)}
            label={gauge.name}
            description={`${gauge.code} · reads to ${inUnit(gauge.resolution, gauge)}, taken to be right within ± ${inUnit(gauge.expanded_uncertainty, gauge)}`}
          />
        ))}
      </fieldset>
    </Asked>
  );
}
