/** From an empty shop to the first engine on its stand in ten questions; what is left for later is asked on the screens it belongs to. */
import { useNavigate } from '@tanstack/react-router';
import type { Schemas } from '../api/client';
import type { Way } from './Asked';
import { BuildersAsked } from './BuildersAsked';
import { EngineAsked } from './EngineAsked';
import { FamilyAsked } from './FamilyAsked';
import { GaugesAsked } from './GaugesAsked';
import { HoursAsked } from './HoursAsked';
import { OF_THE_LEAD, QUESTIONS, type Typed, useFirstRun } from './kept';
import { NameAsked, PasswordAsked, ShopAsked } from './LeadAsked';
import { PinAsked } from './PinAsked';
import { TabletAsked } from './TabletAsked';

export interface AskedOf {
  way: Way;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
  onDone: () => void;
}

export function FirstRun({ person }: { person: Schemas['Person'] | null }) {
  const [typed, change] = useFirstRun();
  const navigate = useNavigate();
  const at = person ? Math.max(typed.at, OF_THE_LEAD + 1) : Math.min(typed.at, OF_THE_LEAD);
  const on = () => {
    if (at === OF_THE_LEAD) void navigate({ to: '/first' });
    if (at < QUESTIONS) return change({ at: at + 1 });
    change({ isDone: true });
    if (typed.engine) return void navigate({ to: '/bench/$serial', params: { serial: typed.engine } });
    void navigate({ to: '/' });
  };
  const first = person ? OF_THE_LEAD + 1 : 1;
  const way: Way = {
    number: at,
    of: QUESTIONS,
    ...(at > first && { back: () => change({ at: at - 1 }) }),
    ...(at > OF_THE_LEAD && { past: on }),
  };
  const given = { way, typed, change, onDone: on };
  if (!person) return <OfTheLead at={at} given={given} />;
  return <OfTheShop at={at} given={given} person={person} />;
}

function OfTheLead({ at, given }: { at: number; given: AskedOf }) {
  if (at === 1) return <ShopAsked {...given} />;
  if (at === 2) return <NameAsked {...given} />;
  return <PasswordAsked {...given} />;
}

function OfTheShop({ at, given, person }: { at: number; given: AskedOf; person: Schemas['Person'] }) {
  if (at === 4) return <PinAsked {...given} person={person} />;
  if (at === 5) return <HoursAsked {...given} />;
  if (at === 6) return <BuildersAsked {...given} />;
  if (at === 7) return <GaugesAsked {...given} />;
  if (at === 8) return <FamilyAsked {...given} />;
  if (at === 9) return <EngineAsked {...given} />;
  return <TabletAsked {...given} />;
}
