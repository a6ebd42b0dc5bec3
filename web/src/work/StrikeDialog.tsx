/** Strikes an entry through, with the reason; three common ones are a key away. */
import { Button, Modal, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { useRecord } from '../ledger/outbox';
import classes from './Dialog.module.css';

const REASONS = ['misread the wheel', 'wrong side', 'went past it'];

export interface StrikeDialogProps {
  serial: string;
  line: Schemas['TapeLine'] | undefined;
  onClose: () => void;
}

export function StrikeDialog({ serial, line, onClose }: StrikeDialogProps) {
  return (
    <Modal opened={line !== undefined} onClose={onClose} title="Strike this entry?">
      {line && <StrikeForm key={line.id} serial={serial} line={line} onClose={onClose} />}
    </Modal>
  );
}

function StrikeForm({ serial, line, onClose }: { serial: string; line: Schemas['TapeLine']; onClose: () => void }) {
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const [reason, setReason] = useState('');
  const [wrong, setWrong] = useState('');
  const strike = async (because: string) => {
    const entry = { kind: 'strike' as const, strikes: line.id, reason: because.trim() };
    const outcome = await record(`strike:${line.id}`, `Strike: ${line.title}`, because, entry);
    if (outcome.kind === 'refused') setWrong(outcome.sentence);
    else onClose();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void strike(REASONS[Number(reason) - 1] ?? reason);
  };
  return (
    <form className={classes.form} onSubmit={submit}>
      <p className={classes.what}>
        {line.title} <b>{line.value}</b>
      </p>
      <TextInput
        label="Why?"
        description="Press 1, 2 or 3 and Enter, or type it"
        data-autofocus
        value={reason}
        error={wrong}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <div className={classes.reasons}>
        {REASONS.map((one, n) => (
          <Button key={one} variant="default" onClick={() => strike(one)}>
            {n + 1} · {one}
          </Button>
        ))}
      </div>
      <Button type="submit">Strike it through</Button>
      <p className={classes.soft}>It stays on the tape and in the record, struck through, with this reason.</p>
    </form>
  );
}
