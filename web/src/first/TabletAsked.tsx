/** The last question: a tablet that stays at the bench. */
import { Asked } from './Asked';
import type { AskedOf } from './FirstRun';
import { PairingCode } from './PairingCode';

export function TabletAsked({ way, typed, onDone }: AskedOf) {
  const { past: _, ...own } = way;
  return (
    <Asked
      way={own}
      question="A tablet at the bench?"
      hint="It stays signed in as that bench, and asks whoever comes for a name and a PIN. More can be paired under People."
      on={typed.engine ? `Open the bench of ${typed.engine}` : 'To the Floor'}
      onGo={onDone}
    >
      <PairingCode name="bench 1" />
    </Asked>
  );
}
