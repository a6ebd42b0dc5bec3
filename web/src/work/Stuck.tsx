/** What keeps everything, where nothing can be answered: each step that waits, why, and the way there. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import { say, type Voice } from '../app/saying';
import classes from './Stuck.module.css';

interface StuckProps {
  stuck: Schemas['Stuck'][];
  voice: Voice;
  onChoose: (key: string) => void;
}

export function Stuck({ stuck, voice, onChoose }: StuckProps) {
  return (
    <ul className={classes.stuck} aria-label="What holds">
      {stuck.map((one) => (
        <li key={one.key}>
          <UnstyledButton onClick={() => onChoose(one.key)}>
            <b>{one.title}</b>
            <span>{say(one.why, voice)}</span>
          </UnstyledButton>
        </li>
      ))}
    </ul>
  );
}
