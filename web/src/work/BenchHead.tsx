/** Which engine, from which side it is seen, and whether the crank may be turned: always on top. */
import { UnstyledButton } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client';
import { Mark } from '../app/Mark';
import { SchemeButton } from '../app/Shell';
import type { SeenFrom } from '../app/saying';
import { useLikings } from '../app/session';
import classes from './BenchHead.module.css';

export interface BenchHeadProps {
  engine: Schemas['EngineHead'];
  permission: Schemas['Permission'];
  seenFrom: SeenFrom;
}

export function BenchHead({ engine, permission, seenFrom }: BenchHeadProps) {
  const like = useLikings();
  return (
    <header className={classes.head}>
      <Link to="/" className={classes.home} aria-label="Gurvo, to the Floor">
        <Mark />
      </Link>
      <div className={classes.engine}>
        <b>{engine.serial}</b>
        <span>
          {engine.family}
          {engine.purpose && ` · ${engine.purpose}`}
          {engine.stand && ` · stand ${engine.stand}`}
        </span>
      </div>
      <div className={classes.tools}>
        <SchemeButton />
        <UnstyledButton
          className={classes.side}
          onClick={() => like({ seen_from: seenFrom === 'front' ? 'flywheel' : 'front' })}
        >
          seen from the {seenFrom}
        </UnstyledButton>
      </div>
      <div className={classes.permission} data-free={permission.free} role="status">
        <b>{permission.title}</b>
        <span>{permission.reasons.join(' · ')}</span>
      </div>
    </header>
  );
}
