/** Gauges of the shelf to choose from, each with its digit and range; what suits comes first. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useKeys } from '../app/keys';
import { gaugesQuery } from './api';
import classes from './GaugeChoice.module.css';
import { inUnit } from './kinds';
import type { Gauge } from './suits';

interface GaugeChoiceProps {
  legend: string;
  gauges: Gauge[];
  chosen: string;
  onChoose: (code: string) => void;
}

export function GaugeChoice({ legend, gauges, chosen, onChoose }: GaugeChoiceProps) {
  // a gauge keeps its number, whatever suits and so comes first
  const numbered = [...gauges].sort((a, b) => a.code.localeCompare(b.code)).slice(0, 9);
  useKeys(
    numbered.map((gauge, n) => ({
      keys: [String(n + 1)],
      label: gauge.code,
      run: () => onChoose(gauge.code),
    })),
  );
  return (
    <fieldset className={classes.choice}>
      <legend>{legend}</legend>
      <div>
        {gauges.map((gauge) => (
          <UnstyledButton key={gauge.code} aria-pressed={gauge.code === chosen} onClick={() => onChoose(gauge.code)}>
            {numbered.includes(gauge) && <i>{numbered.indexOf(gauge) + 1}</i>}
            {gauge.code} {gauge.name}
            <small>
              {gauge.most != null && `${gauge.least ?? 0} to ${gauge.most}, `}to {inUnit(gauge.resolution, gauge)}
              {gauge.overdue && ', overdue'}
            </small>
          </UnstyledButton>
        ))}
        <UnstyledButton aria-pressed={chosen === ''} onClick={() => onChoose('')}>
          none named
        </UnstyledButton>
      </div>
    </fieldset>
  );
}

/** The gauges of the shelf; empty while they are fetched. */
export function useGauges(): Gauge[] {
  return useQuery(gaugesQuery).data ?? [];
}
