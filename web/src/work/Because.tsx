/** Why something is recorded although it was objected to; the reason stands on tape, record and paper for good. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import classes from './Because.module.css';

export interface BecauseProps {
  wayOut: string;
  may: boolean;
  busy: boolean;
  onRecord: (because: string) => void;
}

export function Because({ wayOut, may, busy, onRecord }: BecauseProps) {
  const [because, setBecause] = useState('');
  if (!may) return <p className={classes.because}>A lead may record it all the same, with a reason ({wayOut}).</p>;
  const record = () => because.trim() && !busy && onRecord(because.trim());
  return (
    <div className={classes.because}>
      <TextInput
        aria-label="Reason"
        placeholder="Record it all the same? Say why; it stays in the record."
        value={because}
        onChange={(event) => setBecause(event.currentTarget.value)}
        onKeyDown={(event) => event.key === 'Enter' && record()}
      />
      <Button variant="default" onClick={record} loading={busy}>
        Record it all the same
      </Button>
    </div>
  );
}
