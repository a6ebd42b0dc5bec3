/** A sheet pasted from a spreadsheet: what is understood and what is not, before any of it is kept. Each figure is an entry of its own. */
import { Button, Textarea, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { ApiProblem, type Schemas } from '../../api/client';
import { usePerson } from '../../app/session';
import type { QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { useRecord } from '../../ledger/outbox';
import { readPasted } from '../api';
import classes from './fits.module.css';

interface PasteSheetProps {
  bench: Schemas['Bench'];
  question: QuestionOf<'fit_reading'>;
  onClose: () => void;
}

export function PasteSheet({ bench, question, onClose }: PasteSheetProps) {
  const { serial } = bench.engine;
  const { person } = usePerson();
  const [draft, change, forget] = useDraft(`${serial}.${question.fit}.pasted`, { text: '' });
  const [read, setRead] = useState<Schemas['SheetRead'] | null>(null);
  const [wrong, setWrong] = useState('');
  const [kept, setKept] = useState<number | null>(null);
  const record = useRecord(serial, person.username);
  const look = async () => {
    setWrong('');
    try {
      setRead(await readPasted(serial, question.step, question.fit, draft.text));
    } catch (error) {
      setWrong(
        error instanceof ApiProblem ? error.message : 'The server does not answer; what was pasted is kept here.',
      );
    }
  };
  const keep = async () => {
    if (!read) return;
    const sure = read.taken.filter((one) => one.ask === '');
    for (const [n, one] of sure.entries()) {
      setKept(n + 1);
      const { entry } = one;
      const outcome = await record(
        `paste:${one.called}`,
        one.called,
        `${entry.reading.text} ${entry.reading.unit}`,
        entry,
      );
      if (outcome.kind === 'refused') {
        setWrong(`${one.called}: ${outcome.sentence}`);
        setKept(null);
        return;
      }
    }
    forget();
    onClose();
  };
  const sure = read?.taken.filter((one) => one.ask === '') ?? [];
  const doubted = read?.taken.filter((one) => one.ask !== '') ?? [];
  return (
    <div className={classes.paste}>
      <Textarea
        label="Paste a sheet: its first row names the columns, one of them “place”"
        placeholder={'place\tbore front up\tbore front across\nmain 1\t58.041\t58.043'}
        autosize
        minRows={3}
        maxRows={8}
        autoFocus
        value={draft.text}
        onChange={(event) => {
          change({ text: event.currentTarget.value });
          setRead(null);
        }}
      />
      {read && (
        <div role="status" className={classes.pasted}>
          <b>
            {sure.length} of {read.taken.length + read.not_taken.length} are taken as they are
          </b>
          {doubted.map((one) => (
            <p key={`${one.line} ${one.called}`}>
              line {one.line}, {one.called} {one.entry.reading.text}: {one.ask}; type it at its place
            </p>
          ))}
          {read.not_taken.map((one) => (
            <p key={`${one.line} ${one.text} ${one.why_not}`}>
              line {one.line}
              {one.text && `, “${one.text}”`}: {one.why_not}
            </p>
          ))}
        </div>
      )}
      {wrong && <p role="alert">{wrong}</p>}
      <div className={classes.row}>
        <Button variant="default" onClick={look} disabled={!draft.text.trim()}>
          See what it says
        </Button>
        <Button onClick={keep} disabled={sure.length === 0} loading={kept !== null}>
          {kept !== null ? `Keeping ${kept} of ${sure.length}` : `Keep ${sure.length || ''} readings`}
        </Button>
        <UnstyledButton onClick={onClose}>Not now</UnstyledButton>
      </div>
    </div>
  );
}
