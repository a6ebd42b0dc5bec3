/** Adds a person: two names, a role, a first password. What was typed stays until it is taken. */
import { Button } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import classes from '../app/Page.module.css';
import type { usePeopleChanges } from './api';
import own from './People.module.css';
import { PersonFields } from './PersonFields';

const EMPTY: Schemas['PersonIn'] = { username: '', name: '', role: 'builder', password: '' };

export function AddPerson({ changes }: { changes: ReturnType<typeof usePeopleChanges> }) {
  const [typed, setTyped] = useState(EMPTY);
  const change = (part: Partial<Schemas['PersonIn']>) => setTyped({ ...typed, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await changes.add(typed)) setTyped(EMPTY);
  };
  const wrong = (field: string) => (changes.wrong?.field === field ? changes.wrong.message : undefined);
  return (
    <form className={`${classes.sheet} ${own.add}`} onSubmit={submit} aria-label="Add a person">
      <h2 className={own.heading}>Add a person</h2>
      <PersonFields {...{ typed, change, wrong }} />
      <Button type="submit" disabled={!typed.username || !typed.name || !typed.password}>
        Add
      </Button>
    </form>
  );
}
