/** Says who is there by a name and a PIN, with keys for a fingertip. */
import { Button, PasswordInput, UnstyledButton } from '@mantine/core';
import { type FormEvent, type ReactNode, useState } from 'react';
import type { Schemas } from '../api/client';
import { NumberPad } from '../app/NumberPad';
import classes from './Here.module.css';

interface WhoFormProps {
  people: Schemas['Name'][];
  /** Who it is taken to be before anybody says so. */
  first: string;
  button: (username: string) => string;
  error: string | undefined;
  pending: boolean;
  /** Takes what was said; a refusal empties the field. */
  onSay: (said: Schemas['Here'], refused: () => void) => void;
  children?: ReactNode;
}

export function WhoForm({ people, first, button, error, pending, onSay, children }: WhoFormProps) {
  const [username, setUsername] = useState(first);
  const [typed, setTyped] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSay({ username, password: typed }, () => setTyped(''));
  };
  return (
    <form className={classes.form} onSubmit={submit}>
      <fieldset className={classes.people}>
        <legend>Who is here?</legend>
        {people.map((one) => (
          <UnstyledButton
            key={one.username}
            aria-pressed={one.username === username}
            onClick={() => setUsername(one.username)}
          >
            {one.name}
          </UnstyledButton>
        ))}
      </fieldset>
      <PasswordInput
        label="PIN or password"
        data-autofocus
        size="lg"
        autoComplete="off"
        value={typed}
        error={error}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <NumberPad digitsOnly value={typed} onChange={setTyped} />
      <Button type="submit" size="lg" loading={pending} disabled={!typed || !username}>
        {button(username)}
      </Button>
      {children}
    </form>
  );
}
