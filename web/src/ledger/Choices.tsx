/** A few answers side by side, each with its digit. */
import { UnstyledButton } from '@mantine/core';
import classes from './input.module.css';

interface ChoicesProps {
  choices: readonly { title: string; detail: string }[];
  /** The one that is chosen; left out where choosing answers at once. */
  chosen?: number;
  onChoose: (n: number) => void;
}

export function Choices({ choices, chosen, onChoose }: ChoicesProps) {
  return (
    <div className={classes.choice}>
      {choices.map((one, n) => (
        <UnstyledButton
          key={one.title}
          aria-pressed={chosen === undefined ? undefined : n === chosen}
          onClick={() => onChoose(n)}
        >
          <b>
            <i>{n + 1}</i>
            {one.title}
          </b>
          <span>{one.detail}</span>
        </UnstyledButton>
      ))}
    </div>
  );
}
