/** What is likely wrong, before anything is moved: the likeliest first, and the one look that tells the first two apart. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { useKeys } from '../app/keys';
import { useDraft } from '../ledger/draft';
import { causesQuery } from './api';
import classes from './Causes.module.css';
import { WhatIf } from './WhatIf';

const NOTHING: { seen: Record<string, boolean> } = { seen: {} };

interface CausesProps {
  serial: string;
  entries: number;
  /** Looks made in one round of readings say nothing of the next. */
  rounds: number;
}

export function Causes({ serial, entries, rounds }: CausesProps) {
  const [draft, change, forget] = useDraft(`${serial}.causes.${rounds}`, NOTHING);
  const { data } = useQuery(causesQuery(serial, draft.seen, entries));
  if (!data || data.causes.length === 0) return null;
  const [first] = data.causes;
  const look = (key: string, sound: boolean) => change((old) => ({ seen: { ...old.seen, [key]: sound } }));
  return (
    <section className={classes.causes} aria-label="Likely causes">
      <b>Likely causes</b>
      <ol>
        {data.causes.map((cause) => (
          <li key={cause.key}>
            <span style={{ width: `${cause.percent}%` }} />
            <em>{cause.name}</em>
            <strong>{cause.percent} %</strong>
          </li>
        ))}
      </ol>
      <p className={classes.soft}>{data.says}</p>
      {data.check && <Look check={data.check} onLook={look} />}
      {first && first.key !== 'none' && (
        <p>
          {first.says && `What is done about it: ${first.says}. `}
          <Explained cause={first} />
        </p>
      )}
      <WhatIf serial={serial} />
      {data.seen.length > 0 && (
        <p className={classes.soft}>
          {data.seen.map((one) => `${one.ask} ${one.answer}${one.is_from_run ? ', by the run' : ''}.`).join(' ')}{' '}
          {Object.keys(draft.seen).length > 0 && (
            <UnstyledButton className={classes.again} onClick={forget}>
              Forget these looks
            </UnstyledButton>
          )}
        </p>
      )}
    </section>
  );
}

function Explained({ cause }: { cause: Schemas['CauseShown'] }) {
  const said = cause.explains.map((one) => `${one.name} ${one.predicted}, found ${one.found}`);
  return <span className={classes.soft}>The first would have {said.join('; ')}.</span>;
}

interface LookProps {
  check: Schemas['CheckAsked'];
  onLook: (key: string, sound: boolean) => void;
}

function Look({ check, onLook }: LookProps) {
  useKeys([
    { keys: ['y'], label: check.sound, run: () => onLook(check.key, true) },
    { keys: ['n'], label: check.off, run: () => onLook(check.key, false) },
  ]);
  return (
    <div className={classes.look}>
      <p>{check.ask}</p>
      <UnstyledButton onClick={() => onLook(check.key, true)}>
        <kbd>Y</kbd> {check.sound}
      </UnstyledButton>
      <UnstyledButton onClick={() => onLook(check.key, false)}>
        <kbd>N</kbd> {check.off}
      </UnstyledButton>
    </div>
  );
}
