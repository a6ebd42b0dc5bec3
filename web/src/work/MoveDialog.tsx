/** The lead moves an engine to the newest revision of its document: what changes, and why. */
import { Button, Modal, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { differenceQuery } from '../engine/api';
import { Changes } from '../engine/Changes';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import classes from './Dialog.module.css';

const EMPTY = { reason: '' };

export interface MoveDialogProps {
  engine: Schemas['EngineHead'];
  opened: boolean;
  onClose: () => void;
}

export function MoveDialog({ engine, opened, onClose }: MoveDialogProps) {
  const { person } = usePerson();
  const record = useRecord(engine.serial, person.username);
  const [draft, change, forget] = useDraft(`${engine.serial}.move`, EMPTY);
  const [wrong, setWrong] = useState('');
  const number = engine.newest_revision;
  const { data } = useQuery({ ...differenceQuery(engine.family_code, engine.revision, number), enabled: opened });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await record('move', 'Moved to revision', String(number), {
      kind: 'revision',
      number,
      reason: draft.reason,
    });
    if (outcome.kind === 'refused') return setWrong(outcome.sentence);
    forget();
    setWrong('');
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} size="lg" title={`Move ${engine.serial} to revision ${number}`}>
      <form className={classes.form} onSubmit={submit}>
        <p>Its readings stay; what is worked out from them is worked out anew. This cannot be struck. What changes:</p>
        {data && <Changes changes={data} />}
        <TextInput
          label="Why"
          data-autofocus
          value={draft.reason}
          error={wrong}
          onChange={(event) => change({ reason: event.currentTarget.value })}
        />
        <Button type="submit">Move it</Button>
      </form>
    </Modal>
  );
}
