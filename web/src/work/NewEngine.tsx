/** Puts an engine on a stand. */
import { Button, Modal, NativeSelect, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import type { FormEvent } from 'react';
import { ApiProblem } from '../api/client';
import { familiesQuery } from '../engine/api';
import { useDraft } from '../ledger/draft';
import { usePutOnStand } from './api';
import classes from './NewEngine.module.css';

const EMPTY = { serial: '', family: '', purpose: '', stand: '', promised: '' };

export interface NewEngineProps {
  opened: boolean;
  onClose: () => void;
  taken: (number | null | undefined)[];
}

export function NewEngine({ opened, onClose, taken }: NewEngineProps) {
  const families = useQuery({ ...familiesQuery, enabled: opened });
  const [draft, change, forget] = useDraft('new-engine', EMPTY);
  const put = usePutOnStand();
  const navigate = useNavigate();
  const free = Array.from({ length: 12 }, (_, n) => n + 1).filter((stand) => !taken.includes(stand));
  const family = draft.family || families.data?.[0]?.code || '';
  const queries = useQueryClient();
  const wrong = (field: string) =>
    put.error instanceof ApiProblem && put.error.field.endsWith(field) ? put.error.message : undefined;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // Enter may come before the families are there; the first of them is what the list would have shown
    const [first] = await queries.ensureQueryData(familiesQuery).catch(() => []);
    const body = {
      serial: draft.serial.trim(),
      family: family || first?.code || '',
      purpose: draft.purpose.trim(),
      stand: draft.stand ? Number(draft.stand) : null,
      promised: draft.promised || null,
    };
    put.mutate(body, {
      onSuccess: (row) => {
        forget();
        navigate({ to: '/bench/$serial', params: { serial: row.serial } });
      },
    });
  };
  const shown = ['serial', 'family', 'stand', 'promised', 'purpose'].some((field) => wrong(field));
  return (
    <Modal opened={opened} onClose={onClose} title="Put an engine on a stand">
      <form className={classes.form} onSubmit={submit}>
        <TextInput
          label="Serial"
          description="Letters, digits and dashes, such as Q4-0174"
          data-autofocus
          required
          withAsterisk={false}
          value={draft.serial}
          error={wrong('serial')}
          onChange={(event) => change({ serial: event.currentTarget.value })}
        />
        <NativeSelect
          label="Family"
          value={family}
          error={wrong('family')}
          data={(families.data ?? []).map((one) => ({ value: one.code, label: one.name }))}
          onChange={(event) => change({ family: event.currentTarget.value })}
        />
        <TextInput
          label="For"
          placeholder="vineyard tractor"
          value={draft.purpose}
          error={wrong('purpose')}
          onChange={(event) => change({ purpose: event.currentTarget.value })}
        />
        <div className={classes.two}>
          <NativeSelect
            label="Stand"
            value={draft.stand}
            error={wrong('stand')}
            data={[{ value: '', label: 'not yet' }, ...free.map((stand) => String(stand))]}
            onChange={(event) => change({ stand: event.currentTarget.value })}
          />
          <TextInput
            type="date"
            label="Promised"
            value={draft.promised}
            error={wrong('promised')}
            onChange={(event) => change({ promised: event.currentTarget.value })}
          />
        </div>
        {put.error && !shown && <p role="alert">{put.error.message}</p>}
        <Button type="submit" loading={put.isPending}>
          Put it on the stand
        </Button>
      </form>
    </Modal>
  );
}
