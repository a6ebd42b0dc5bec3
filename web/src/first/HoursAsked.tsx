/** When the shop works, and when a bench that was left alone asks who is there. */
import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { choicesQuery, usePeopleChanges } from '../shop/api';
import { Asked } from './Asked';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

const ALONE = [0, 5, 15, 30, 60];

export function HoursAsked({ way, onDone }: AskedOf) {
  const { data } = useQuery(choicesQuery);
  const [typed, setTyped] = useState<Partial<Schemas['ShopChoices']>>({});
  const changes = usePeopleChanges();
  const now = data && { ...data, ...typed };
  const go = async () => {
    if (now && (await changes.choose(now))) onDone();
  };
  return (
    <Asked
      way={way}
      question="When does the shop work?"
      hint="By these hours it is told on which day an engine will be done. A bench left alone asks who is there."
      on="Go on"
      ready={now !== undefined}
      wrong={changes.wrong?.message}
      onGo={() => void go()}
    >
      {now && (
        <>
          <div className={classes.two}>
            <TextInput
              type="time"
              label="Work begins"
              value={now.day_begins.slice(0, 5)}
              onChange={(event) => setTyped({ ...typed, day_begins: event.currentTarget.value })}
            />
            <TextInput
              type="time"
              label="Work ends"
              value={now.day_ends.slice(0, 5)}
              onChange={(event) => setTyped({ ...typed, day_ends: event.currentTarget.value })}
            />
          </div>
          <Checkbox
            label="Saturdays too"
            checked={now.works_saturdays ?? false}
            onChange={(event) => setTyped({ ...typed, works_saturdays: event.currentTarget.checked })}
          />
          <NativeSelect
            label="A bench left alone asks who is there"
            data={ALONE.map((n) => ({ value: `${n}`, label: n === 0 ? 'never' : `after ${n} minutes` }))}
            value={`${now.alone_minutes}`}
            onChange={(event) => setTyped({ ...typed, alone_minutes: Number(event.currentTarget.value) })}
          />
        </>
      )}
    </Asked>
  );
}
