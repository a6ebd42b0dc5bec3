/** What is looked for on the Floor. The server looks; this only asks. */
import { TextInput, UnstyledButton } from '@mantine/core';
import type { RefObject } from 'react';
import type { Wanted } from './api';
import classes from './Floor.module.css';

export interface FloorFilterProps {
  wanted: Wanted;
  want: (change: Partial<Wanted>) => void;
  me: string;
  search: RefObject<HTMLInputElement | null>;
}

export function FloorFilter({ wanted, want, me, search }: FloorFilterProps) {
  const chips = [
    { label: 'mine', on: wanted.mine !== '', set: (on: boolean) => want({ mine: on ? me : '' }) },
    { label: 'not signed', on: wanted.open_only, set: (on: boolean) => want({ open_only: on }) },
    {
      label: 'waits on the lead',
      on: wanted.waits_on === 'lead',
      set: (on: boolean) => want({ waits_on: on ? 'lead' : null }),
    },
    { label: 'late', on: wanted.late, set: (on: boolean) => want({ late: on }) },
    { label: 'archived', on: wanted.archived, set: (on: boolean) => want({ archived: on }) },
    { label: 'with loose ends', on: wanted.loose_ends, set: (on: boolean) => want({ loose_ends: on }) },
  ];
  return (
    <search className={classes.filter}>
      <TextInput
        ref={search}
        type="search"
        aria-label="Find engines"
        placeholder="Serial, family, purpose, builder, what it waits for"
        value={wanted.search}
        onChange={(event) => want({ search: event.currentTarget.value.slice(0, 80) })}
        onKeyDown={(event) => event.key === 'Escape' && want({ search: '' })}
      />
      <fieldset className={classes.only} aria-label="Only">
        {chips.map((chip) => (
          <UnstyledButton key={chip.label} aria-pressed={chip.on} onClick={() => chip.set(!chip.on)}>
            {chip.label}
          </UnstyledButton>
        ))}
      </fieldset>
    </search>
  );
}
