/** The first engine on its stand. */
import { NativeSelect, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, sentenceOf } from '../api/client';
import { familiesQuery } from '../engine/api';
import { usePutOnStand } from '../work/api';
import { Asked } from './Asked';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

export function EngineAsked({ way, typed, change, onDone }: AskedOf) {
  const families = useQuery(familiesQuery).data ?? [];
  const [family, setFamily] = useState('');
  const [serial, setSerial] = useState('');
  const [purpose, setPurpose] = useState('');
  const put = usePutOnStand();
  const field = put.error instanceof ApiProblem ? put.error.field : '';
  const sentence = put.error ? sentenceOf(put.error) : undefined;
  const wrong = (name: string) => (field.endsWith(name) ? sentence : undefined);
  const code = family || families[0]?.code || '';
  const go = () => {
    if (typed.engine) return onDone();
    put.mutate(
      { serial: serial.trim(), family: code, purpose: purpose.trim(), stand: 1, promised: null },
      {
        onSuccess: (row) => {
          change({ engine: row.serial });
          onDone();
        },
      },
    );
  };
  if (families.length === 0)
    return (
      <Asked
        way={way}
        question="The first engine on its stand?"
        hint="No family is in yet: an engine is put on a stand as soon as one is described, on the Floor."
        on="Go on"
        onGo={onDone}
      >
        {null}
      </Asked>
    );
  return (
    <Asked
      way={way}
      question="The first engine on its stand?"
      hint={
        typed.engine ? `${typed.engine} is on stand 1.` : 'By the serial that is stamped on it; it goes on stand 1.'
      }
      on={typed.engine ? 'Go on' : 'Put it on stand 1'}
      ready={typed.engine !== '' || serial.trim() !== ''}
      pending={put.isPending}
      wrong={['serial', 'family', 'purpose'].some(wrong) ? undefined : sentence}
      onGo={go}
    >
      {!typed.engine && (
        <div className={classes.two}>
          <TextInput
            label="Serial"
            autoComplete="off"
            value={serial}
            error={wrong('serial')}
            onChange={(event) => setSerial(event.currentTarget.value)}
          />
          <TextInput
            label="For"
            placeholder="vineyard tractor"
            autoComplete="off"
            value={purpose}
            error={wrong('purpose')}
            onChange={(event) => setPurpose(event.currentTarget.value)}
          />
          <NativeSelect
            label="Family"
            value={code}
            error={wrong('family')}
            data={families.map((one) => ({ value: one.code, label: one.name }))}
            onChange={(event) => setFamily(event.currentTarget.value)}
          />
        </div>
      )}
    </Asked>
  );
}
