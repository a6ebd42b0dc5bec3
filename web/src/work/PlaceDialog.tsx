/** Moves an engine: to a stand, to another builder, aside, away. All of it is an entry in its ledger. */
import { Button, Modal, NativeSelect, SegmentedControl, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import { hereQuery } from '../shop/api';
import classes from './Dialog.module.css';

type Where = Schemas['EngineHead']['whereabouts'];
const STANDS = Array.from({ length: 24 }, (_, n) => String(n + 1));
const FOR: Record<Where, string> = {
  'at work': 'A word, if you wish',
  'set aside': 'Why, and what does it wait for?',
  archived: 'A word, if you wish; why, where it is not signed',
};

export interface PlaceDialogProps {
  engine: Schemas['EngineHead'];
  opened: boolean;
  onClose: () => void;
}

export function PlaceDialog({ engine, opened, onClose }: PlaceDialogProps) {
  const { person } = usePerson();
  const people = useQuery({ ...hereQuery, enabled: opened }).data ?? [];
  const record = useRecord(engine.serial, person.username);
  const now = { where: engine.whereabouts, stand: `${engine.stand ?? ''}`, builder: engine.builder, reason: '' };
  const [draft, change, forget] = useDraft(`${engine.serial}.place`, now);
  const [wrong, setWrong] = useState({ field: '', sentence: '' });
  const isHere = draft.where === 'at work';
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const reason = draft.reason.trim();
    const outcome = await record(
      'place',
      'Moved',
      isHere ? `stand ${draft.stand || '–'}` : draft.where,
      {
        kind: 'engine_moved',
        stand: isHere && draft.stand ? Number(draft.stand) : null,
        builder: draft.builder || person.username,
        whereabouts: draft.where,
        reason,
      },
      reason,
    );
    if (outcome.kind === 'refused') return setWrong({ field: outcome.field, sentence: outcome.sentence });
    forget();
    setWrong({ field: '', sentence: '' });
    onClose();
  };
  const said = (field: string) => (wrong.field.endsWith(field) ? wrong.sentence : undefined);
  const isSaid = ['stand', 'builder', 'reason'].some(said);
  return (
    <Modal opened={opened} onClose={onClose} title={`Where ${engine.serial} is`}>
      <form className={classes.form} onSubmit={submit}>
        <SegmentedControl
          aria-label="Where it is"
          fullWidth
          value={draft.where}
          onChange={(where) => change({ where: where as Where })}
          data={['at work', 'set aside', 'archived']}
        />
        {isHere && (
          <NativeSelect
            label="Stand"
            value={draft.stand}
            error={said('stand')}
            data={[{ value: '', label: 'none' }, ...STANDS]}
            onChange={(event) => change({ stand: event.currentTarget.value })}
          />
        )}
        <NativeSelect
          label="Builder"
          value={draft.builder || person.username}
          error={said('builder')}
          data={people.map((one) => ({ value: one.username, label: one.name }))}
          onChange={(event) => change({ builder: event.currentTarget.value })}
        />
        <TextInput
          label="Why"
          placeholder={FOR[draft.where]}
          data-autofocus
          value={draft.reason}
          error={said('reason')}
          onChange={(event) => change({ reason: event.currentTarget.value })}
        />
        {wrong.sentence && !isSaid && <p role="alert">{wrong.sentence}</p>}
        <Button type="submit">Record it</Button>
      </form>
    </Modal>
  );
}
