/** Everything temporary or unfinished, never more than one glance away; each says since when, what ends it and what it holds back. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { type FormEvent, useMemo, useState } from 'react';
import type { Schemas } from '../api/client';
import { Clock, useSeconds } from '../app/Clock';
import { say, type Voice } from '../app/saying';
import { useAlarm, useSound } from '../app/sound';
import { sayWhen } from '../app/times';
import type { EntryBody } from '../ledger/contract';
import classes from './LooseEnds.module.css';

type End = Schemas['LooseEndView'];
type OnEnd = (title: string, entry: EntryBody, because?: string) => void;

interface LooseEndsProps {
  ends: End[];
  voice: Voice;
  /** Whether the lead is here, who may do without something. */
  maySign: boolean;
  /** Ends one that no step asks for. */
  onEnd?: OnEnd | undefined;
}

export function LooseEnds({ ends: all, voice, maySign, onEnd }: LooseEndsProps) {
  const clocks = useMemo(() => all.filter((end) => end.ends_at && !end.is_after), [all]);
  const now = useSeconds(clocks.length > 0);
  useAlarm(clocks, now);
  const ends = all.filter((end) => !(end.clears && end.ends_at && Date.parse(end.ends_at) < now));
  const isRunning = ends.some((end) => end.ends_at && !end.is_after);
  const count = ends.filter((end) => !end.is_after).length;
  return (
    <section className={classes.ends} aria-label="Loose ends">
      <header>
        <h2>Loose ends · {count}</h2>
        {isRunning && <SoundSwitch />}
      </header>
      {count === 0 && <p>Nothing temporary is in the engine.</p>}
      <ul>
        {ends.map((end) => (
          <li
            key={`${end.title} ${end.since}`}
            className={classes.end}
            data-stops={end.stops_turning}
            data-after={end.is_after}
          >
            <b>{end.title}</b>
            {end.ends_at && !end.is_after && <Clock endsAt={end.ends_at} now={now} />}
            <span>
              {end.at && `since ${sayWhen(end.at)}${end.by ? `, ${end.by}` : ''} · `}
              {say(end.until, voice)}
              {end.holds_back && ` · holds back: ${end.holds_back}`}
            </span>
            {onEnd && <Ending end={end} maySign={maySign} onEnd={onEnd} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

function SoundSwitch() {
  const [isOn, setOn] = useSound();
  return (
    <UnstyledButton className={classes.sound} aria-pressed={isOn} onClick={() => setOn(!isOn)}>
      sound {isOn ? 'on' : 'off'}
    </UnstyledButton>
  );
}

interface EndingProps {
  end: End;
  maySign: boolean;
  onEnd: OnEnd;
}

/** What ends one: a press of its button, or the lead's reason for doing without. */
function Ending({ end, maySign, onEnd }: EndingProps) {
  const [reason, setReason] = useState<string | null>(null);
  const entry = (plain: End['ends_with'], more = {}) => ({ ...plain, ...more }) as unknown as EntryBody;
  const waive = (event: FormEvent) => {
    event.preventDefault();
    const why = reason?.trim();
    if (why) onEnd(end.title, entry(end.waived_with, { reason: why }), why);
  };
  if (reason !== null)
    return (
      <form className={classes.waive} onSubmit={waive}>
        <TextInput
          aria-label="Why?"
          placeholder="Why?"
          autoFocus
          value={reason}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={!reason.trim()}>
          {end.waived_as}
        </Button>
      </form>
    );
  return (
    <div className={classes.buttons}>
      {end.ends_with && (
        <UnstyledButton onClick={() => onEnd(end.title, entry(end.ends_with))}>{end.ends_as}</UnstyledButton>
      )}
      {end.waived_with && maySign && <UnstyledButton onClick={() => setReason('')}>{end.waived_as}</UnstyledButton>}
    </div>
  );
}
