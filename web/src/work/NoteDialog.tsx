/** A remark for the ledger. */
import { Button, Modal, Textarea } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import classes from './Dialog.module.css';

const EMPTY = { text: '' };

export function NoteDialog({ serial, opened, onClose }: { serial: string; opened: boolean; onClose: () => void }) {
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const [draft, change, forget] = useDraft(`${serial}.note`, EMPTY);
  const [wrong, setWrong] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await record('note', 'Note', draft.text, { kind: 'note', text: draft.text });
    if (outcome.kind === 'refused') return setWrong(outcome.sentence);
    forget();
    setWrong('');
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title="A note for the ledger">
      <form className={classes.form} onSubmit={submit}>
        <Textarea
          aria-label="Note"
          data-autofocus
          autosize
          minRows={3}
          value={draft.text}
          error={wrong}
          onChange={(event) => change({ text: event.currentTarget.value })}
        />
        <Button type="submit">Record the note</Button>
      </form>
    </Modal>
  );
}
