/** Where a shaft stands, by what is seen of it: a mark or a lobe's nose, and its clock position. */
import { TextInput, UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import { sayClock, type Voice } from '../app/saying';
import classes from './StandsForm.module.css';

export interface Stands {
  of: string;
  clock: string;
}

interface StandsFormProps {
  tells: Schemas['TellView'][];
  stands: Stands;
  voice: Voice;
  change: (part: Partial<Stands>) => void;
}

/** What is entered of it, or nothing while something is missing. */
export function standsAt({ of, clock }: Stands, voice: Voice): Schemas['ShaftAt'] | null {
  return of && clock.trim() ? { of, clock: clock.trim(), seen_from: voice.seenFrom } : null;
}

export function StandsForm({ tells, stands, voice, change }: StandsFormProps) {
  if (tells.length === 0)
    return <p className={classes.none}>The document has no clock position of any mark on it: it cannot be told.</p>;
  return (
    <div className={classes.stands}>
      <fieldset aria-label="By what it is told">
        {tells.map((one) => (
          <UnstyledButton key={one.of} aria-pressed={stands.of === one.of} onClick={() => change({ of: one.of })}>
            {one.name}
            {one.clock_deg != null && <span>was at {sayClock(one.clock_deg, voice.seenFrom)}</span>}
          </UnstyledButton>
        ))}
      </fieldset>
      <TextInput
        label={`stands at, seen from the ${voice.seenFrom}`}
        placeholder="7:30, half past 7, 225°"
        value={stands.clock}
        onChange={(event) => change({ clock: event.currentTarget.value.slice(0, 40) })}
      />
    </div>
  );
}
