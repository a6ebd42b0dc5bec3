/** What is said of a part that was touched: how far it has come, which way round it goes, and the steps that are about it. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import classes from './ScenePicture.module.css';
import { SAID, type Stands } from './shown';

interface PartSaidProps {
  part: Schemas['ScenePart'];
  scene: Schemas['Scene'];
  stands: Stands;
  steps: Schemas['Step'][];
  choose?: ((key: string) => void) | undefined;
  onClose: () => void;
}

const MOST = 4;

export function PartSaid({ part, scene, stands, steps, choose, onClose }: PartSaidProps) {
  const keys = scene.steps.filter((one) => one.parts.includes(part.id)).map((one) => one.step);
  const own = steps.filter((step) => keys.includes(step.key));
  // those that were done last and those that come next tell most
  const open = own.findIndex((step) => step.status !== 'done');
  const from = Math.max(0, (open < 0 ? own.length : open) - MOST / 2);
  const stand = stands[part.id];
  return (
    <section className={classes.said} aria-label={part.name} aria-live="polite">
      <b>
        {part.name}
        {part.where ? `, ${part.where}` : ''}
      </b>
      {stand && <span>{SAID[stand]}</span>}
      {part.says && <span>{part.says}</span>}
      {own.slice(from, from + MOST).map((step) => (
        <UnstyledButton
          key={step.key}
          className={classes.step}
          onClick={() => step.questions[0] && choose?.(step.questions[0].key)}
        >
          {step.status === 'done' ? '✓ ' : step.status === 'now' ? 'now: ' : 'then: '}
          {step.title}
          {step.status === 'done' && step.note ? ` · ${step.note}` : ''}
        </UnstyledButton>
      ))}
      <UnstyledButton onClick={onClose} className={classes.close}>
        Close
      </UnstyledButton>
    </section>
  );
}
