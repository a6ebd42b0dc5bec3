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
  /** Whether it stands beside the map itself. */
  onMap?: boolean;
  /** Tells where one stands; left out for whoever only looks. */
  onTell?: (() => void) | undefined;
}

/** What there is to say while nobody has looked: a line, not a list of what is not known. */
function notLooked(shafts: Schemas['ShaftView'][]): string {
  const unknown = shafts.slice(1).filter((one) => one.how === 'not known');
  if (unknown.length === 0) return 'The camshafts turn with the crank.';
  const names = unknown.map((one) => one.name).join(', ');
  return `Nobody has looked where ${unknown.length > 1 ? 'they stand' : 'it stands'}: ${names}.`;
}

export function Shafts({ serial, clearway, voice, onMap = false, onTell }: ShaftsProps) {
  const looked = clearway.shafts.some((one) => one.how === 'seen' || one.how === 'turned');
  return (
    <section className={classes.shafts} aria-label="Where everything stands">
      <header>
        <h2>Where everything stands</h2>
        {onMap || (
          <Link to="/bench/$serial/clearway" params={{ serial }}>
            clearway
          </Link>
        )}
      </header>
      {clearway.caps.map((one) => (
        <p key={one} data-caps>
          {say(one, voice)}.
        </p>
      ))}
      {!looked && <p>{notLooked(clearway.shafts)}</p>}
      <ul hidden={!looked}>
        {clearway.shafts.map((one) => (
          <li key={one.shaft} data-loaded={one.loaded} data-known={one.how !== 'not known'}>
            <b>{one.name}</b>
            <span>{say(one.words, voice)}</span>
            {one.rest && <span data-rest>{say(one.rest, voice)}</span>}
            {one.reach && <span>{one.reach.words}</span>}
          </li>
        ))}
      </ul>
      {looked && clearway.asks.length > 0 && (
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
