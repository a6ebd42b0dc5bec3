/** Sign-in: name, password, one button. */
import { Button, PasswordInput, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import { Mark } from '../app/Mark';
import { useSignIn } from '../app/session';
import { Rim } from './Rim';
import classes from './SignIn.module.css';

export function SignIn() {
  const [username, setUsername] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useSignIn();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ username, password });
  };
  return (
    <main className={classes.page}>
      <form className={classes.sheet} onSubmit={submit}>
        <Mark />
        <h1>Who is at the bench?</h1>
        <TextInput
          label="Name"
          autoComplete="username"
          autoFocus
          required
          withAsterisk={false}
          value={username}
          onChange={(event) => setUsername(event.currentTarget.value)}
        />
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          required
          withAsterisk={false}
          value={password}
          onChange={(event) => setPassword(event.currentTarget.value)}
          error={signIn.error?.message}
        />
        <Button type="submit" loading={signIn.isPending} size="lg">
          Sign in
        </Button>
        <p>Turn the engine by hand, plugs out, stand locked. The maker's manual and local rules come first.</p>
      </form>
      <Rim />
    </main>
  );
}
