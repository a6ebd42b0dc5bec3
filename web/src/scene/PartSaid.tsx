/** What is said of a part that was touched: how far it has come, which way round it goes, what it came to, what is loose, its steps. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { say, type Voice } from '../app/saying';
import { partQuery } from './api';
import classes from './ScenePicture.module.css';
import { SAID, type Stands } from './shown';

interface PartSaidProps {
  part: Schemas['ScenePart'];
  scene: Schemas['Scene'];
  stands: Stands;
  /** Left out where no engine is at work. */
  bench?: Schemas['Bench'] | undefined;
  voice?: Voice | undefined;
  choose?: ((key: string) => void) | undefined;
  onClose: () => void;
}

const MOST = 4;

export function PartSaid({ part, scene, stands, bench, voice, choose, onClose }: PartSaidProps) {
  const stand = stands[part.id];
  return (
    <section className={classes.said} aria-label={part.name} aria-live="polite">
      <p>
        <b>
          {part.name}
          {part.where ? `, ${part.where}` : ''}
        </b>
        {stand && <span>{SAID[stand]}</span>}
        {part.says && <span>{part.says}</span>}
        <UnstyledButton onClick={onClose} className={classes.close}>
          Close
        </UnstyledButton>
      </p>
      {bench && voice && <Told part={part} bench={bench} voice={voice} />}
      {bench && <Steps part={part} scene={scene} steps={bench.state.steps} choose={choose} />}
    </section>
  );
}

interface ToldProps {
  part: Schemas['ScenePart'];
  bench: Schemas['Bench'];
  voice: Voice;
}

/** What the ledger says of it: what it was measured at, how far its bolts are, what is loose, who entered what. */
function Told({ part, bench, voice }: ToldProps) {
  const told = useQuery(partQuery(bench.engine.serial, part.id, bench.engine.head ?? '')).data;
  if (!told) return null;
  return (
    <>
      {told.loose_ends.map((one) => (
        <p key={one} data-loose>
          {say(one, voice)}
        </p>
      ))}
      {told.came_to.slice(0, MOST).map((one) => (
        <p key={one}>{say(one, voice)}</p>
      ))}
      {told.entries.slice(0, MOST).map((one) => (
        <p key={one.id} data-struck={one.struck != null}>
          {say([one.title, one.value, one.by].filter(Boolean).join(' · '), voice)}
        </p>
      ))}
    </>
  );
}

interface StepsProps {
  part: Schemas['ScenePart'];
  scene: Schemas['Scene'];
  steps: Schemas['Step'][];
  choose?: ((key: string) => void) | undefined;
}

/** The steps that are about it, those that were done last and those that come next; each leads to its question. */
function Steps({ part, scene, steps, choose }: StepsProps) {
  const keys = scene.steps.filter((one) => one.parts.includes(part.id)).map((one) => one.step);
  const own = steps.filter((step) => keys.includes(step.key));
  const open = own.findIndex((step) => step.status !== 'done');
  const from = Math.max(0, (open < 0 ? own.length : open) - MOST / 2);
  return (
    <p>
      {own.slice(from, from + MOST).map((step) => (
        <UnstyledButton
          key={step.key}
          className={classes.step}
          onClick={() => step.questions[0] && choose?.(step.questions[0].key)}
        >
          {step.status === 'done' ? '✓ ' : step.status === 'now' ? 'now: ' : 'then: '}
          {step.title}
        </UnstyledButton>
      ))}
    </p>
  );
}
