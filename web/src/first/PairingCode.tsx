/** Asks what a device will be called, and shows the square code by which it is paired, until it is. */
import { Button, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { sentenceOf } from '../api/client';
import { benchDevicesQuery, useBeginPairing } from './api';
import classes from './First.module.css';

const LOOK_AGAIN_MS = 2_000;
const ONLY_HERE = /^(127\.|localhost$|\[::1\])/;

export function PairingCode({ name: firstName }: { name: string }) {
  const [name, setName] = useState(firstName);
  const begin = useBeginPairing();
  const devices = useQuery({ ...benchDevicesQuery, refetchInterval: begin.data ? LOOK_AGAIN_MS : false }).data ?? [];
  const [before, setBefore] = useState<number[]>([]);
  const paired = begin.data && devices.find((one) => !before.includes(one.id) && one.name === name.trim());
  const show = () => {
    setBefore(devices.map((one) => one.id));
    begin.mutate(name.trim());
  };
  if (paired) return <p role="status">{paired.name} is paired: it asks for a name and a PIN from now on.</p>;
  return (
    <>
      <div className={classes.two}>
        <TextInput
          label="What is it called?"
          autoComplete="off"
          value={name}
          error={begin.error ? sentenceOf(begin.error) : undefined}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button variant="default" mt="auto" disabled={!name.trim()} loading={begin.isPending} onClick={show}>
          {begin.data ? 'Show a new code' : 'Show its code'}
        </Button>
      </div>
      {ONLY_HERE.test(window.location.hostname) && (
        <p className={classes.hint}>
          This page is open at {window.location.host}, where only this machine finds it. Open Gurvo by the name that
          tablets know it by (docs/running.md says how), then show a code there.
        </p>
      )}
      {begin.data && (
        <div className={classes.square}>
          <img alt="Square code for the tablet's camera" width={210} height={210} src={begin.data.square} />
          <p>
            Point the tablet's camera at it, or open <span className={classes.address}>{begin.data.address}</span>{' '}
            there.
            <br />
            <b>{begin.data.code}</b>
            <br />
            It holds for {Math.round(begin.data.good_for_s / 60)} minutes and one device.
          </p>
        </div>
      )}
    </>
  );
}
