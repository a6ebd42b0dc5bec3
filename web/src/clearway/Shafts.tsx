/** Where everything stands, beside the loose ends: each shaft, how it rests, how far it may be turned. */
import { UnstyledButton } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client';
import { say, type Voice } from '../app/saying';
import classes from './Shafts.module.css';

interface ShaftsProps {
  serial: string;
  clearway: Schemas['ClearwayView'];
  voice: Voice;
  /** Tells where one stands; left out for whoever only looks. */
  onTell?: (() => void) | undefined;
}

export function Shafts({ serial, clearway, voice, onTell }: ShaftsProps) {
  return (
    <section className={classes.shafts} aria-label="Where everything stands">
      <header>
        <h2>Where everything stands</h2>
        <Link to="/bench/$serial/clearway" params={{ serial }}>
          clearway
        </Link>
      </header>
      <ul>
        {clearway.shafts.map((one) => (
          <li key={one.shaft} data-loaded={one.loaded} data-known={one.how !== 'not known'}>
            <b>{one.name}</b>
            <span>{say(one.words, voice)}</span>
            {one.rest && <span data-rest>{say(one.rest, voice)}</span>}
            {one.reach && <span>{one.reach.words}</span>}
          </li>
        ))}
      </ul>
      {clearway.asks.length > 0 && clearway.asks.length < clearway.shafts.length && (
        <p>A way is proposed once all have been looked at: {clearway.asks.join(', ')}.</p>
      )}
      {onTell && (
        <UnstyledButton className={classes.tell} onClick={onTell}>
          <b>Y</b> one stands elsewhere
        </UnstyledButton>
      )}
    </section>
  );
}
