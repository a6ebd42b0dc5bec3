/** Adds a person: two names, a role, a first password. What was typed stays until it is taken. */
import { Button, NativeSelect, PasswordInput, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import classes from '../app/Page.module.css';
import type { usePeopleChanges } from './api';
import own from './People.module.css';
import { ROLES } from './roles';

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
      <TextInput
        label="Sign-in name"
        autoComplete="off"
        value={typed.username}
        error={wrong('username')}
        onChange={(event) => change({ username: event.currentTarget.value })}
      />
      <TextInput
        label="Name on tape and paper"
        autoComplete="off"
        value={typed.name}
        error={wrong('name')}
        onChange={(event) => change({ name: event.currentTarget.value })}
      />
      <NativeSelect
        label="Role"
        data={ROLES}
        value={typed.role}
        onChange={(event) => change({ role: event.currentTarget.value as Schemas['PersonIn']['role'] })}
      />
      <PasswordInput
        label="First password"
        autoComplete="new-password"
        value={typed.password}
        error={wrong('password')}
        onChange={(event) => change({ password: event.currentTarget.value })}
      />
      <Button type="submit" disabled={!typed.username || !typed.name || !typed.password}>
        Add
      </Button>
    </form>
  );
}
