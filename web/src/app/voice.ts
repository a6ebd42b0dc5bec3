/** How the person signed in hears the core's sentences about one engine. */
import { useMemo } from 'react';
import type { Voice } from './saying';
import { usePerson } from './session';

export function useVoice(running: Voice['running']): Voice {
  const { person, units } = usePerson();
  const { length_unit: unit, seen_from: seenFrom } = person;
  const factor = units[unit];
  if (!factor) throw new Error(`The server sent no factor for ${unit}`);
  // the same one as long as nothing of it changes: whoever is given it need not draw anew
  return useMemo(() => ({ unit, factor, seenFrom, running }), [unit, factor, seenFrom, running]);
}
