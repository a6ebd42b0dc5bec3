/** For whom an engine is built: customer, job number, what was complained of. It stands on the first page of its record. */
import { Button, Modal, Textarea, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import classes from './Dialog.module.css';

interface ForWhomDialogProps {
  serial: string;
  order: Schemas['OrderView'] | null | undefined;
  opened: boolean;
  onClose: () => void;
}

export function ForWhomDialog({ serial, order, opened, onClose }: ForWhomDialogProps) {
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const now = { customer: order?.customer ?? '', job: order?.job ?? '', complaint: order?.complaint ?? '' };
  const [draft, change, forget] = useDraft(`${serial}.order`, now);
  const [wrong, setWrong] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { customer, job, complaint } = draft;
    const outcome = await record('order', 'For whom', customer || job, { kind: 'for_whom', customer, job, complaint });
    if (outcome.kind === 'refused') return setWrong(outcome.sentence);
    forget();
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title={`For whom ${serial} is built`}>
      <form className={classes.form} onSubmit={submit}>
        <TextInput
          label="Customer"
          data-autofocus
          maxLength={120}
          value={draft.customer}
          onChange={(event) => change({ customer: event.currentTarget.value })}
        />
        <TextInput
          label="Job number"
          maxLength={120}
          value={draft.job}
          onChange={(event) => change({ job: event.currentTarget.value })}
        />
        <Textarea
          label="What was complained of"
          autosize
          minRows={2}
          maxLength={500}
          value={draft.complaint}
          onChange={(event) => change({ complaint: event.currentTarget.value })}
        />
        {wrong && <p role="alert">{wrong}</p>}
        <Button type="submit">Record it</Button>
      </form>
    </Modal>
  );
}
