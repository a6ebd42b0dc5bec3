/** A shaft stands elsewhere than the bench believes: which, and where. */
import { Button, Modal, UnstyledButton } from '@mantine/core';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { say, type Voice } from '../app/saying';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { useRecord } from '../ledger/outbox';
import classes from './StandsDialog.module.css';
import { StandsForm, standsAt } from './StandsForm';

interface StandsDialogProps {
  serial: string;
  shafts: Schemas['ShaftView'][];
  voice: Voice;
  opened: boolean;
  onClose: () => void;
}

const EMPTY = { shaft: '', of: '', clock: '' };

export function StandsDialog({ serial, shafts, voice, opened, onClose }: StandsDialogProps) {
  const [draft, change] = useDraft(`${serial}.stands`, EMPTY);
  const [wrong, setWrong] = useState('');
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const there = shafts.filter((one) => one.how !== 'not in');
  // the first that nobody has looked at, until another is chosen
  const first = there.find((one) => one.how === 'not known') ?? there[0];
  const shaft = there.find((one) => one.shaft === draft.shaft) ?? first;
  const focused = useRef<HTMLButtonElement>(null);
  const at = standsAt(draft, voice);
  // the next one is at hand as soon as it is its turn
  const turn = shaft?.shaft;
  useEffect(() => {
    if (turn) focused.current?.focus();
  }, [turn]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!shaft || !at) return;
    const entry = { kind: 'shaft_seen' as const, shaft: shaft.shaft, at, note: '' };
    const outcome = await record(`stands:${shaft.shaft}`, `${shaft.name} seen`, at.clock, entry);
    setWrong(outcome.kind === 'refused' ? outcome.sentence : '');
    if (outcome.kind === 'refused') return;
    const next = there.find((one) => one.how === 'not known' && one.shaft !== shaft.shaft);
    change({ ...EMPTY, shaft: next?.shaft ?? '' });
    if (!next) onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title="Where does it stand?" size="lg">
      <form className={classes.form} onSubmit={submit}>
        <fieldset aria-label="Which shaft">
          {there.map((one) => (
            <UnstyledButton
              key={one.shaft}
              aria-pressed={one === shaft}
              {...(one === shaft ? { ref: focused, 'data-autofocus': true } : {})}
              onClick={() => change({ ...EMPTY, shaft: one.shaft })}
            >
              <b>{one.name}</b>
              <span>{say(one.words, voice)}</span>
            </UnstyledButton>
          ))}
        </fieldset>
        {shaft && <StandsForm tells={shaft.told_by} stands={draft} voice={voice} change={change} />}
        {wrong && <p role="alert">{wrong}</p>}
        <div className={classes.foot}>
          <Button variant="default" size="md" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" size="md" disabled={!shaft || !at}>
            It stands there
          </Button>
        </div>
      </form>
    </Modal>
  );
}
