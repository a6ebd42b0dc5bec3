/** Everything temporary or unfinished, never more than one glance away; each says since when, what ends it and what it holds back. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import { Clock, useSeconds } from '../app/Clock';
import { say, type Voice } from '../app/saying';
import type { EntryBody } from '../ledger/contract';
import classes from './LooseEnds.module.css';

type End = Schemas['LooseEndView'];

interface LooseEndsProps {
  ends: End[];
  voice: Voice;
  /** Ends one that no step asks for. */
  onEnd?: ((title: string, entry: EntryBody) => void) | undefined;
}

export function LooseEnds({ ends: all, voice, onEnd }: LooseEndsProps) {
  const now = useSeconds(all.some((end) => end.ends_at));
  const ends = all.filter((end) => !(end.clears && end.ends_at && Date.parse(end.ends_at) < now));
  return (
    <section className={classes.ends} aria-label="Loose ends">
      <h2>Loose ends · {ends.length}</h2>
      {ends.length === 0 && <p>Nothing temporary is in the engine.</p>}
      {ends.map((end) => (
        <div key={`${end.title} ${end.since}`} className={classes.end} data-stops={end.stops_turning}>
          <b>{end.title}</b>
          {end.ends_at && <Clock endsAt={end.ends_at} now={now} />}
          <span>
            {end.at && `since ${clockOf(end.at)}${end.by ? `, ${end.by}` : ''} · `}
            {say(end.until, voice)}
            {end.holds_back && ` · holds back: ${end.holds_back}`}
          </span>
          {end.ends_with && onEnd && (
            <UnstyledButton onClick={() => onEnd(end.title, end.ends_with as unknown as EntryBody)}>
              It is off
            </UnstyledButton>
          )}
        </div>
      ))}
    </section>
  );
}

function clockOf(at: string): string {
  return new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
}
