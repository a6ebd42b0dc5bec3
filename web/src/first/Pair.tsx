/** Where the square code leads: makes this tablet or telephone the one that stands at a bench. */
import { Button, TextInput } from '@mantine/core';
import { useNavigate } from '@tanstack/react-router';
import { type FormEvent, useState } from 'react';
import { sentenceOf } from '../api/client';
import { Mark } from '../app/Mark';
import { Rim } from '../shop/Rim';
import classes from '../shop/SignIn.module.css';
import { usePairHere } from './api';

export function Pair() {
  const [code, setCode] = useState(() => window.location.hash.slice(1));
  const pair = usePairHere();
  const navigate = useNavigate();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    pair.mutate(code, { onSuccess: () => navigate({ to: '/' }) });
  };
  return (
    <main className={classes.page}>
      <form className={classes.sheet} onSubmit={submit}>
        <Mark />
        <h1>Does this device stay at the bench?</h1>
        <TextInput
          label="Code, as the lead's screen shows it"
          autoFocus
          autoComplete="off"
          autoCapitalize="characters"
          value={code}
          error={pair.error ? sentenceOf(pair.error) : undefined}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
        <Button type="submit" size="lg" loading={pair.isPending} disabled={!code.trim()}>
          Keep it at the bench
        </Button>
        <p>From then on it asks for a name and a PIN, not for a password. Do this with no device that you take home.</p>
      </form>
      <Rim />
    </main>
  );
}
