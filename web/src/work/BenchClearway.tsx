/** The clearway of the engine on the bench: what may meet by what was measured of it, and where everything stands. */
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { useVoice } from '../app/voice';
import { clearwayQuery } from '../clearway/api';
import { Clearway } from '../clearway/Clearway';
import { MeasureForm } from '../clearway/MeasureForm';
import { Shafts } from '../clearway/Shafts';
import { StandsDialog } from '../clearway/StandsDialog';
import { BenchHead } from './BenchHead';
import classes from './BenchTwin.module.css';
import { WithBench } from './WithBench';

export function BenchClearway() {
  const { serial } = useParams({ from: '/bench/$serial/clearway' });
  useDocumentTitle(`${serial} · clearway · Gurvo`);
  return <WithBench serial={serial}>{(bench) => <Screen bench={bench} />}</WithBench>;
}

function Screen({ bench }: { bench: Schemas['Bench'] }) {
  const { engine, state } = bench;
  const voice = useVoice(engine.running_direction);
  const navigate = useNavigate();
  const [telling, setTelling] = useState(false);
  const of = { serial: engine.serial, head: bench.tape[0]?.id ?? '' };
  const valves = useQuery(clearwayQuery(of)).data?.valves ?? [];
  const places = (state.clearway?.shafts ?? []).flatMap((one, n): [string, number][] =>
    one.place_deg == null ? [] : [[n === 0 ? 'crank' : one.shaft, Math.round(one.place_deg) % 720]],
  );
  return (
    <div className={classes.screen}>
      <BenchHead engine={engine} permission={state.permission} seenFrom={voice.seenFrom} other="bench" />
      <Clearway
        of={of}
        twin={{ code: engine.family_code, number: engine.revision }}
        voice={voice}
        stands={Object.fromEntries(places)}
        keys={[
          ...(state.clearway && engine.may_record
            ? [{ keys: ['y'], label: 'where one stands', run: () => setTelling(true) }]
            : []),
          {
            keys: ['w'],
            label: 'bench',
            run: () => navigate({ to: '/bench/$serial', params: { serial: engine.serial } }),
          },
        ]}
      >
        {state.clearway && (
          <Shafts
            serial={engine.serial}
            clearway={state.clearway}
            voice={voice}
            onMap
            onTell={engine.may_record ? () => setTelling(true) : undefined}
          />
        )}
        <MeasureForm bench={bench} valves={valves} voice={voice} />
      </Clearway>
      {telling && state.clearway && (
        <StandsDialog
          serial={engine.serial}
          shafts={state.clearway.shafts}
          voice={voice}
          opened={telling}
          onClose={() => setTelling(false)}
        />
      )}
    </div>
  );
}
