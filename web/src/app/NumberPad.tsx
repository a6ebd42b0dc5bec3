/** Digits for a fingertip; they go into the field above. */
import { UnstyledButton } from '@mantine/core';
import classes from './NumberPad.module.css';

const FIGURE = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', '⌫'];
const DIGITS = FIGURE.filter((key) => key !== '.');

interface NumberPadProps {
  value: string;
  onChange: (value: string) => void;
  /** A whole number or a PIN has no decimals. */
  digitsOnly?: boolean;
}

export function NumberPad({ value, onChange, digitsOnly = false }: NumberPadProps) {
  return (
    <fieldset className={classes.pad} aria-label="Number pad">
      {(digitsOnly ? DIGITS : FIGURE).map((key) => (
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
