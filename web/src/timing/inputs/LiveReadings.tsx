/** Encoder and dial live: what they show, taken with a key when the crank rests, or one after the other while it is swept for the fit. */
import { UnstyledButton } from '@mantine/core';
import { useLocalStorage, useSessionStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useKeys } from '../../app/keys';
import { type Reading, tell, useLive } from '../../instruments/live';
import classes from '../../ledger/input.module.css';
import { gaugesQuery } from '../../shop/api';

/** So far either side of the top, on the encoder's scale: as many points as a fit asks for. */
const SWEEP = { from_deg: -21, angle_deg: 24 };

interface LiveReadingsProps {
  /** The wheel and dial that were set up, by code. */
  wheel: string;
  dial: string;
  /** Whether the method takes many points, so that a sweep is offered. */
  sweeps: boolean;
  onTake: (wheel: string, length: string) => void;
  /** What they show when the crank has come to rest. */
  onRest: (wheel: string, length: string) => void;
  /** A point of a sweep, recorded at once. */
  onPoint: (wheel: string, length: string) => Promise<void>;
}

export function LiveReadings({ wheel, dial, sweeps, onTake, onRest, onPoint }: LiveReadingsProps) {
  const gauges = useQuery(gaugesQuery).data ?? [];
  const address = (code: string) => gauges.find((one) => one.code === code)?.address;
  const [wanted, setWanted] = useLocalStorage({
    key: 'gurvo.live',
    defaultValue: false,
    getInitialValueInEffect: false,
  });
  const [trouble, setTrouble] = useState('');
  // the next question is another input, and the sweep goes on
  const [sweeping, setSweeping] = useSessionStorage({ key: 'gurvo.sweep', defaultValue: false });
  const latest = useRef<Reading>({});
  const shown = useRef<HTMLElement>(null);
  const points = useRef(Promise.resolve());
  const can = Boolean(address(wheel) && address(dial));
  const isOn = can && wanted;
  useLive(
    isOn ? wheel : null,
    (reading) => {
      latest.current = reading;
      if ((reading.trouble ?? '') !== trouble) setTrouble(reading.trouble ?? '');
      if (shown.current) shown.current.textContent = `${reading.text ?? ''}° · ${reading.beside ?? ''} mm`;
      // whoever stops the crank finds its figures filled in, unless something was typed
      if (reading.at_rest && !sweeping && reading.beside) onRest(reading.text ?? '', reading.beside);
      // points are recorded one after the other, in the order in which they were passed
      if (sweeping && reading.take && reading.beside) {
        const [at, drop] = [reading.text ?? '', reading.beside];
        points.current = points.current.then(() => onPoint(at, drop));
      }
    },
    dial,
  );
  const take = () => onTake(latest.current.text ?? '', latest.current.beside ?? '');
  const sweep = () => {
    setSweeping(!sweeping);
    if (!sweeping) void tell(wheel, SWEEP);
  };
  useKeys([
    { keys: ['v'], label: 'read the gauges', run: () => setWanted(!wanted) },
    { keys: ['i'], label: 'take what they show', run: () => isOn && take() },
  ]);
  if (!can) return null;
  return (
    <div className={classes.foot}>
      <UnstyledButton className={classes.turned} aria-pressed={isOn} onClick={() => setWanted(!wanted)}>
        <b>V</b> {wheel} and {dial} {isOn ? 'are being read' : 'are not read'}
      </UnstyledButton>
      {isOn && <b ref={shown} />}
      {isOn && (
        <UnstyledButton className={classes.turned} onClick={take}>
          <b>I</b> take it
        </UnstyledButton>
      )}
      {isOn && sweeps && (
        <UnstyledButton className={classes.turned} aria-pressed={sweeping} onClick={sweep}>
          {sweeping ? 'stop the sweep' : 'sweep the crank'}
        </UnstyledButton>
      )}
      {trouble && <span role="status">{trouble}</span>}
    </div>
  );
}
