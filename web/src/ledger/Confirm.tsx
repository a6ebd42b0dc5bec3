/** One thing to confirm. Enter, Space or PageDown confirms. */
import { Button } from '@mantine/core';
import type { ReactNode } from 'react';
import { useKeys } from '../app/keys';
import type { EntryBody, InputProps } from './contract';
import classes from './input.module.css';
import { Wrong } from './Wrong';

export interface ConfirmProps extends Pick<InputProps, 'wrong' | 'busy' | 'answer'> {
  what: ReactNode;
  button: string;
  /** What is recorded; null while it cannot be. */
  entry: EntryBody | null;
  /** Whether this person may. */
  may?: boolean;
}

export function Confirm({ what, button, entry, may = true, wrong, busy, answer }: ConfirmProps) {
  const confirm = () => {
    if (entry && may && !busy) void answer(button, entry);
  };
  useKeys([{ keys: ['Enter', ' ', 'PageDown'], label: 'confirm', run: confirm }]);
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Confirm">
      <div className={classes.confirm}>
        {typeof what === 'string' ? <span>{what}</span> : what}
        {may && (
          <Button size="lg" onClick={confirm} loading={busy} disabled={!entry}>
            {button}
          </Button>
        )}
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
