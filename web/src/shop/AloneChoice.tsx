/** After how long a bench left alone asks who is there: the shop's choice. */
import { NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import classes from '../app/Page.module.css';
import { choicesQuery, type usePeopleChanges } from './api';
import own from './People.module.css';

const MINUTES = [0, 2, 5, 10, 15, 30, 60, 120];

export function AloneChoice({ changes }: { changes: ReturnType<typeof usePeopleChanges> }) {
  const { data } = useQuery(choicesQuery);
  const chosen = data?.alone_minutes ?? 0;
  const offered = [...new Set([...MINUTES, chosen])].sort((a, b) => a - b);
  return (
    <section className={`${classes.sheet} ${own.choice}`} aria-label="A bench left alone">
      <NativeSelect
        label="A bench left alone asks who is there"
        description="By PIN, or password where somebody has none. What was typed stays."
        data={offered.map((minutes) => ({
          value: `${minutes}`,
          label: minutes === 0 ? 'never' : `after ${minutes} minutes`,
        }))}
        value={`${chosen}`}
        onChange={(event) => data && changes.choose({ ...data, alone_minutes: Number(event.currentTarget.value) })}
      />
    </section>
  );
}
