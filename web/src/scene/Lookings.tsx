/** From where the engine is looked at: from where the step is seen, until somebody looks from elsewhere; V goes through the ways. */
import { UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { useKeys } from '../app/keys';
import classes from './Lookings.module.css';

export type Looking = Schemas['StepScene']['looking'];

/** ``ways`` are those that can be drawn of this engine. */
export function useLooking(question: string | undefined, seen: Looking, ways: Looking[]) {
  const [chosen, choose] = useState<{ question: string | undefined; looking: Looking } | null>(null);
  const own = ways.includes(seen) ? seen : 'above';
  const looking = chosen !== null && chosen.question === question ? chosen.looking : own;
  const look = (to: Looking) => choose({ question, looking: to });
  const next = () => look(ways[(ways.indexOf(looking) + 1) % ways.length] ?? 'front');
  useKeys([{ keys: ['v'], label: 'side, above, front', run: next }]);
  return { looking, look };
}

interface LookingsProps {
  ways: Looking[];
  looking: Looking;
  look: (to: Looking) => void;
}

export function Lookings({ ways, looking, look }: LookingsProps) {
  return (
    <nav className={classes.lookings} aria-label="Seen from">
      {ways.map((one) => (
        <UnstyledButton key={one} onClick={() => look(one)} aria-pressed={one === looking}>
          {one}
        </UnstyledButton>
      ))}
    </nav>
  );
}
