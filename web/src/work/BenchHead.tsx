/** Which engine, from which side it is seen, and whether the crank may be turned: always on top. */
import { UnstyledButton } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { Mark } from '../app/Mark';
import { SchemeButton } from '../app/SchemeButton';
import type { SeenFrom } from '../app/saying';
import { usePerson, useTurnRound } from '../app/session';
import classes from './BenchHead.module.css';
import { MoveDialog } from './MoveDialog';

export interface BenchHeadProps {
  engine: Schemas['EngineHead'];
  permission: Schemas['Permission'];
  seenFrom: SeenFrom;
  /** The engine's other screen, a fingertip away. */
  other: 'bench' | 'twin';
  /** Somebody else comes to this bench. */
  changePerson?: () => void;
  /** It goes to another stand, another builder, aside. */
  move?: () => void;
}

export function BenchHead({ engine, permission, seenFrom, other, changePerson, move }: BenchHeadProps) {
  const turnRound = useTurnRound();
  const { person } = usePerson();
  const [moving, setMoving] = useState(false);
  const behind =
    engine.newest_revision > engine.revision && `revision ${engine.revision}, newest ${engine.newest_revision}`;
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
          {!move && ` · ${place(engine)}`}
        </span>
        {move && (
          <UnstyledButton className={classes.place} title="Move the engine" onClick={move}>
            {place(engine)}
          </UnstyledButton>
        )}
        {behind && !engine.may_move && <span>{behind}</span>}
        {behind && engine.may_move && (
          <UnstyledButton className={classes.behind} onClick={() => setMoving(true)}>
            {behind}
          </UnstyledButton>
        )}
        {engine.may_move && <MoveDialog engine={engine} opened={moving} onClose={() => setMoving(false)} />}
      </div>
      <div className={classes.tools}>
        {changePerson && (
          <UnstyledButton className={classes.person} title="Change person" onClick={changePerson}>
            {person.name.split(' ')[0]}
          </UnstyledButton>
        )}
        <SchemeButton />
        <Link
          className={classes.side}
          to={other === 'twin' ? '/bench/$serial/twin' : '/bench/$serial'}
          params={{ serial: engine.serial }}
        >
          {other}
        </Link>
        <UnstyledButton className={classes.side} onClick={turnRound}>
          seen from the {seenFrom}
        </UnstyledButton>
      </div>
      <div className={classes.permission} data-free={permission.free} data-careful={permission.careful} role="status">
        <b>{permission.title}</b>
        {(permission.way || permission.how_far) && (
          <strong>{[permission.way, permission.how_far].filter(Boolean).join(' · ')}</strong>
        )}
        <span>{permission.reasons.join(' · ')}</span>
      </div>
    </header>
  );
}

function place(engine: Schemas['EngineHead']): string {
  if (engine.whereabouts === 'set aside') return `set aside: ${engine.aside_because}`;
  if (engine.whereabouts === 'archived') return 'archived';
  return engine.stand ? `stand ${engine.stand}` : 'no stand';
}
