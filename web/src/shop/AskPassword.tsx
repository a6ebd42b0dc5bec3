/** Asks for the password where a PIN, or an old session, is not enough: people, passwords, concessions. Then what was asked goes on. */
import { Button, Modal, PasswordInput } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { client, passwordAskedBy } from '../api/client';
import classes from './AskPassword.module.css';

const LOOKS_LIKE_PIN = /^\d{4,8}$/;

export function AskPassword() {
  const [opened, setOpened] = useState(false);
  const [password, setPassword] = useState('');
  const [wrong, setWrong] = useState('');
  const done = useRef<(given: boolean) => void>(() => undefined);
  useEffect(() => {
    passwordAskedBy(
      () =>
        new Promise((resolve) => {
          done.current = resolve;
          setOpened(true);
        }),
    );
    return () => passwordAskedBy(null);
  }, []);
  const close = (given: boolean) => {
    setOpened(false);
    setPassword('');
    setWrong('');
    done.current(given);
  };
  const give = async () => {
    if (LOOKS_LIKE_PIN.test(password)) {
      setWrong('A PIN is not enough here: type your password.');
      return;
    }
    try {
      const answer = await client.POST('/api/session/confirm', { body: { password } });
      if (answer.response.ok) close(true);
      else setWrong('This is not your password; try again.');
    } catch {
      setWrong('The server does not answer; try again.');
    }
  };
  return (
    <Modal opened={opened} onClose={() => close(false)} title="Your password, once more" centered>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void give();
        }}
      >
        <p className={classes.why}>People, passwords and what only a lead decides ask for it; then it goes on.</p>
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          data-autofocus
          value={password}
          error={wrong}
          onChange={(event) => setPassword(event.currentTarget.value)}
        />
        <div className={classes.foot}>
          <Button variant="default" onClick={() => close(false)}>
            Leave it
          </Button>
          <Button type="submit" disabled={password === ''}>
            Go on
          </Button>
        </div>
      </form>
    </Modal>
  );
}
