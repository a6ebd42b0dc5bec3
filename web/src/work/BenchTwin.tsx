/** The twin of the engine on the bench, with its cams where they were measured; and where the crank has been turned to. */
import { Button } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useNavigate, useParams } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { useKeys } from '../app/keys';
import { say, type Voice } from '../app/saying';
import { usePerson } from '../app/session';
import { useVoice } from '../app/voice';
import { useOutbox, useRecord } from '../ledger/outbox';
import { Twin } from '../motion/Twin';
import { BenchHead } from './BenchHead';
import classes from './BenchTwin.module.css';
import { WithBench } from './WithBench';

export function BenchTwin() {
  const { serial } = useParams({ from: '/bench/$serial/twin' });
  useDocumentTitle(`${serial} · twin · Gurvo`);
  return <WithBench serial={serial}>{(bench) => <Screen bench={bench} />}</WithBench>;
}

/** Where the engine's cams stand is known by its decisions and readings; a turn alone moves none of them. */
function camsKnownBy(bench: Schemas['Bench']): number {
  return (bench.state.timing?.cams ?? []).reduce(
    (sum, cam) => sum + (cam.advance_deg ?? 0),
    bench.engine.revision * 1000,
  );
}

function Screen({ bench }: { bench: Schemas['Bench'] }) {
  const { engine, state } = bench;
  const voice = useVoice(engine.running_direction);
  const navigate = useNavigate();
  const [start] = useState(state.timing?.crank?.cycle_deg ?? undefined);
  const toBench = () => navigate({ to: '/bench/$serial', params: { serial: engine.serial } });
  return (
    <div className={classes.screen}>
      <BenchHead engine={engine} permission={state.permission} seenFrom={voice.seenFrom} other="bench" />
      <Twin
        of={{ serial: engine.serial, cams: camsKnownBy(bench) }}
        voice={voice}
        start={start}
        keys={[
          ...(engine.may_record
            ? [{ keys: ['Record'], shown: 'R or Space', label: 'I have turned it', run: () => undefined }]
            : []),
          { keys: ['w'], label: 'bench', run: toBench },
        ]}
      >
        {(resting) => (
          <>
            {engine.may_record && <TurnedTo bench={bench} restingDeg={resting} />}
            <Known crank={state.timing?.crank} voice={voice} />
            {state.timing?.cams.some((cam) => cam.advance_deg != null) && (
              <span className={classes.known}>Cams stand where they were measured.</span>
            )}
          </>
        )}
      </Twin>
    </div>
  );
}

/** Where the ledger has the crank, so that nobody takes a turned drawing for a turned engine. */
function Known({ crank, voice }: { crank: Schemas['CrankAt'] | null | undefined; voice: Voice }) {
  if (crank?.cycle_deg == null)
    return <span className={classes.known}>The ledger does not know where the crank stands.</span>;
  return (
    <span className={classes.known}>
      In the ledger: {Math.round(crank.cycle_deg * 10) / 10}°, {say(crank.sees, voice).split(';')[0]}
    </span>
  );
}

function TurnedTo({ bench, restingDeg }: { bench: Schemas['Bench']; restingDeg: number }) {
  const { engine } = bench;
  const { person } = usePerson();
  const record = useRecord(engine.serial, person.username);
  const waiting = useOutbox().items.some(
    (item) => item.serial === engine.serial && item.question === 'turn' && !item.refused,
  );
  const [wrong, setWrong] = useState('');
  const say = async () => {
    const outcome = await record('turn', 'Crank turned to', `${restingDeg}°`, { kind: 'turn', to: String(restingDeg) });
    setWrong(outcome.kind === 'refused' ? outcome.sentence : '');
  };
  useKeys([{ keys: ['r', ' '], label: 'I have turned it', run: say }]);
  return (
    <div className={classes.turned}>
      <Button onClick={say}>I have turned it to {restingDeg}°</Button>
      {waiting && <span>Kept here, not yet sent.</span>}
      {wrong && <p role="alert">{wrong}</p>}
    </div>
  );
}
