/** A new password for somebody; every session of his ends. */
import { Button, Modal, PasswordInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { usePeopleChanges } from './api';
import own from './People.module.css';

interface NewPasswordProps {
  username: string;
  changes: ReturnType<typeof usePeopleChanges>;
  onClose: () => void;
}

export function NewPassword({ username, changes, onClose }: NewPasswordProps) {
  const [password, setPassword] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await changes.change(username, { password })) onClose();
  };
  return (
    <Modal opened onClose={onClose} title={`New password for ${username}`}>
      <form className={own.renew} onSubmit={submit}>
        <PasswordInput
          label="New password"
          data-autofocus
          autoComplete="new-password"
          value={password}
          error={changes.wrong?.field === 'password' ? changes.wrong.message : undefined}
          onChange={(event) => setPassword(event.currentTarget.value)}
        />
        <Button type="submit" disabled={!password}>
          Set it
        </Button>
      </form>
    </Modal>
  );
}
