/** A new password for somebody, which ends every session of his; or a PIN for a bench that is signed in. */
import { Button, Modal, PasswordInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { usePeopleChanges } from './api';
import own from './People.module.css';

export type Secret = 'password' | 'pin';
const ASKS = {
  password: { title: 'New password', hint: 'Every session of his ends.' },
  pin: {
    title: 'New PIN',
    hint: 'Four to eight digits, for signatures and for a bench where somebody is signed in. Leave it empty to take it away.',
  },
};

interface NewSecretProps {
  username: string;
  secret: Secret;
  changes: ReturnType<typeof usePeopleChanges>;
  onClose: () => void;
}

export function NewSecret({ username, secret, changes, onClose }: NewSecretProps) {
  const [typed, setTyped] = useState('');
  const { title, hint } = ASKS[secret];
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await changes.change(username, { [secret]: typed })) onClose();
  };
  return (
    <Modal opened onClose={onClose} title={`${title} for ${username}`}>
      <form className={own.renew} onSubmit={submit}>
        <PasswordInput
          label={title}
          description={hint}
          data-autofocus
          autoComplete="new-password"
          inputMode={secret === 'pin' ? 'numeric' : undefined}
          value={typed}
          error={changes.wrong?.field === secret ? changes.wrong.message : undefined}
          onChange={(event) => setTyped(event.currentTarget.value)}
        />
        <Button type="submit" disabled={!typed && secret === 'password'}>
          {typed || secret === 'password' ? 'Set it' : 'Take it away'}
        </Button>
      </form>
    </Modal>
  );
}
