/** How the person signed in hears the core's sentences about one engine. */
import type { Voice } from './saying';
import { usePerson } from './session';

export function useVoice(running: Voice['running']): Voice {
  const { person, units } = usePerson();
  const factor = units[person.length_unit];
  if (!factor) throw new Error(`The server sent no factor for ${person.length_unit}`);
  return { unit: person.length_unit, factor, seenFrom: person.seen_from, running };
}
