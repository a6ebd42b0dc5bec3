/** Who is at the bench: whoever left it goes on, or another person takes it over, by PIN or password. */
import { Modal, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useHere, usePerson, useSignOut } from '../app/session';
import { hereQuery } from './api';
import classes from './Here.module.css';
import { WhoForm } from './WhoForm';

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
  return (
    <WhoForm
      people={people}
      first={person.username}
      button={(username) => (username === person.username ? 'Go on' : 'Take over')}
      error={here.error?.message}
      pending={here.isPending}
      onSay={(said, refused) => here.mutate(said, { onSuccess: onDone, onError: refused })}
    >
      <p className={classes.soft}>
        What was typed stays.{' '}
        <UnstyledButton className={classes.out} onClick={() => signOut.mutate()}>
          Sign {person.name} out
        </UnstyledButton>
        {' · '}
        <Link to="/keys" onClick={onDone}>
          Keys for programs
        </Link>
      </p>
    </WhoForm>
  );
}
