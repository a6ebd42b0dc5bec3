/** What somebody new is asked for: his two names, a first password, his role. */
import { NativeSelect, PasswordInput, TextInput } from '@mantine/core';
import type { Schemas } from '../api/client';
import { ROLES } from './roles';

type Person = Schemas['PersonIn'];

interface PersonFieldsProps {
  typed: Person;
  change: (part: Partial<Person>) => void;
  /** What is wrong with a field, where something is. */
  wrong: (field: string) => string | undefined;
}

export function PersonFields({ typed, change, wrong }: PersonFieldsProps) {
  return (
    <>
      <TextInput
        label="Name on tape and paper"
        autoComplete="off"
        value={typed.name}
        error={wrong('name')}
        onChange={(event) => change({ name: event.currentTarget.value })}
      />
      <TextInput
        label="Sign-in name"
        autoComplete="off"
        value={typed.username}
        error={wrong('username')}
        onChange={(event) => change({ username: event.currentTarget.value })}
      />
      <PasswordInput
        label="First password"
        autoComplete="new-password"
        value={typed.password}
        error={wrong('password')}
        onChange={(event) => change({ password: event.currentTarget.value })}
      />
      <NativeSelect
        label="Role"
        data={ROLES}
        value={typed.role}
        onChange={(event) => change({ role: event.currentTarget.value as Person['role'] })}
      />
    </>
  );
}
