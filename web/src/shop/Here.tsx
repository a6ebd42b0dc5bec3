/** Who is at the bench: whoever left it goes on, or another person takes it over, by PIN or password. */
import { Button, Modal, PasswordInput, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { NumberPad } from '../app/NumberPad';
import { useHere, usePerson, useSignOut } from '../app/session';
import { hereQuery } from './api';
import classes from './Here.module.css';

interface HereProps {
  opened: boolean;
  /** Only somebody who is known to be there may turn back. */
  onClose?: () => void;
}

export function Here({ opened, onClose }: HereProps) {
  const stay = () => undefined;
  return (
    <Modal
      opened={opened}
      onClose={onClose ?? stay}
      withCloseButton={onClose !== undefined}
      closeOnEscape={onClose !== undefined}
      closeOnClickOutside={onClose !== undefined}
      title={onClose ? 'Change of person' : 'Gurvo was left alone'}
    >
      {opened && <WhoIsHere onDone={onClose ?? stay} />}
    </Modal>
  );
}

function WhoIsHere({ onDone }: { onDone: () => void }) {
  const { person } = usePerson();
  const people = useQuery(hereQuery).data ?? [person];
  const here = useHere();
  const signOut = useSignOut();
  const [username, setUsername] = useState(person.username);
  const [typed, setTyped] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    here.mutate({ username, password: typed }, { onSuccess: onDone, onError: () => setTyped('') });
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
        error={here.error?.message}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <NumberPad digitsOnly value={typed} onChange={setTyped} />
      <Button type="submit" size="lg" loading={here.isPending} disabled={!typed}>
        {username === person.username ? 'Go on' : 'Take over'}
      </Button>
      <p className={classes.soft}>
        What was typed stays.{' '}
        <UnstyledButton className={classes.out} onClick={() => signOut.mutate()}>
          Sign {person.name} out
        </UnstyledButton>
      </p>
    </form>
  );
}
