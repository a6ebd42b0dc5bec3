/** Digits for a fingertip; it types into the figure above it. */
import { UnstyledButton } from '@mantine/core';
import classes from '../../ledger/input.module.css';

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', '⌫'];

export function NumberPad({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <fieldset className={classes.pad} aria-label="Number pad">
      {KEYS.map((key) => (
        <UnstyledButton
          key={key}
          aria-label={key === '⌫' ? 'Take the last digit back' : key}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onChange(key === '⌫' ? value.slice(0, -1) : value + key)}
        >
          {key}
        </UnstyledButton>
      ))}
    </fieldset>
  );
}
