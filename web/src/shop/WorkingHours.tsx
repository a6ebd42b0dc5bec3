/** When the shop works: by these hours it is told on which day an engine will be done. */
import { Checkbox, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import classes from '../app/Page.module.css';
import { choicesQuery, type usePeopleChanges } from './api';
import own from './People.module.css';

type Choices = Schemas['ShopChoices'];

export function WorkingHours({ changes }: { changes: ReturnType<typeof usePeopleChanges> }) {
  const { data } = useQuery(choicesQuery);
  if (!data) return null;
  const choose = (change: Partial<Choices>) => void changes.choose({ ...data, ...change });
  const time = (key: 'day_begins' | 'day_ends', label: string) => (
    <TextInput
      key={`${key} ${data[key]}`}
      type="time"
      label={label}
      defaultValue={data[key].slice(0, 5)}
      onBlur={(event) => {
        const value = event.currentTarget.value;
        if (value && value !== data[key].slice(0, 5)) choose({ [key]: value });
      }}
    />
  );
  return (
    <section className={`${classes.sheet} ${own.choice} ${own.hours}`} aria-label="Working hours">
      {time('day_begins', 'Work begins')}
      {time('day_ends', 'Work ends')}
      <Checkbox
        label="Saturdays too"
        checked={data.works_saturdays ?? false}
        onChange={(event) => choose({ works_saturdays: event.currentTarget.checked })}
      />
      <Checkbox
        label="Another lead looks at a draft before it is taken in"
        checked={data.second_lead_looks ?? false}
        onChange={(event) => choose({ second_lead_looks: event.currentTarget.checked })}
      />
      <TextInput
        key={`hosts ${data.instrument_hosts}`}
        label="Instruments also at these hosts"
        placeholder="bench-2.local, 10.0.0.7"
        defaultValue={data.instrument_hosts}
        onBlur={(event) => {
          const value = event.currentTarget.value.trim();
          if (value !== data.instrument_hosts) choose({ instrument_hosts: value });
        }}
      />
    </section>
  );
}
