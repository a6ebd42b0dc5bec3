/** A gauge that can be read: what it shows now, taken with a key, or filled in when it has come to rest. */
import { UnstyledButton } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { type ReactNode, useRef, useState } from 'react';
import { useKeys } from '../../app/keys';
import { type Reading, useLive } from '../../instruments/live';
import input from '../../ledger/input.module.css';
import { useGauges } from '../../shop/GaugeChoice';
import classes from './fits.module.css';

export function useLiveGauge(
  code: string | null,
  onTake: (text: string) => void,
): { shown: ReactNode; switches: ReactNode } {
  const address = useGauges().find((one) => one.code === code)?.address;
  const [wanted, setWanted] = useLocalStorage({
    key: 'gurvo.live',
    defaultValue: false,
    getInitialValueInEffect: false,
  });
  const [trouble, setTrouble] = useState('');
  const latest = useRef<Reading>({});
  const figure = useRef<HTMLElement>(null);
  const can = Boolean(code && address);
  const isOn = can && wanted;
  useLive(isOn ? code : null, (reading) => {
    latest.current = reading;
    if ((reading.trouble ?? '') !== trouble) setTrouble(reading.trouble ?? '');
    if (figure.current) figure.current.textContent = reading.text ?? '';
  });
  const take = () => latest.current.text && onTake(latest.current.text);
  useKeys([
    { keys: ['v'], label: 'read the gauge', run: () => can && setWanted(!wanted) },
    { keys: ['i'], label: 'take what it shows', run: () => isOn && take() },
  ]);
  if (!can) return { shown: null, switches: null };
  return {
    shown: isOn ? (
      <div className={classes.live}>
        {trouble ? (
          <span role="status">{trouble}</span>
        ) : (
          <>
            {code} shows <b ref={figure} /> mm
            <UnstyledButton className={input.turned} onClick={take}>
              <b>I</b> take it
            </UnstyledButton>
          </>
        )}
      </div>
    ) : null,
    switches: (
      <UnstyledButton className={input.turned} aria-pressed={isOn} onClick={() => setWanted(!wanted)}>
        <b>V</b> {code} {isOn ? 'is being read' : 'is not read'}
      </UnstyledButton>
    ),
  };
}
