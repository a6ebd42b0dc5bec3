/** The wrench live: a needle to the target, the fields filled when the pull has ended, and recorded by itself if that is wanted. */
import { UnstyledButton } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { type Reading, tell, useLive } from '../../instruments/live';
import { Needle } from '../../instruments/Needle';
import type { QuestionOf } from '../../ledger/contract';
import classes from './joints.module.css';

export type ReadPull = NonNullable<Schemas['LiveReading']['pull']>;

interface LiveWrenchInput {
  /** The wrench, where it can be read. */
  code: string | null;
  question: QuestionOf<'pull'>;
  onPull: (pull: ReadPull, byItself: boolean) => void;
}

const kept = (key: string) => ({ key, defaultValue: false, getInitialValueInEffect: false });

/** The needle while it is live, and what switches it. */
export function useLiveWrench({ code, question, onPull }: LiveWrenchInput): { needle: ReactNode; switches: ReactNode } {
  const [wanted, setWanted] = useLocalStorage(kept('gurvo.live'));
  const [byItself, setByItself] = useLocalStorage(kept('gurvo.live.records'));
  const latest = useRef<Reading>({});
  const [trouble, setTrouble] = useState('');
  const isOn = wanted && code !== null;
  const torque = Number(question.target.find((one) => one.unit === 'N·m')?.text ?? 0);
  const angle = question.target_deg ?? 0;
  useLive(isOn ? code : null, (reading) => {
    latest.current = reading;
    if ((reading.trouble ?? '') !== trouble) setTrouble(reading.trouble ?? '');
    if (reading.pull) onPull(reading.pull, byItself);
  });
  // the wrench is told what comes next, once it answers
  useEffect(() => {
    if (!isOn || trouble || code === null) return;
    const later = setTimeout(() => void tell(code, { torque_nm: torque, angle_deg: angle }), 700);
    return () => clearTimeout(later);
  }, [isOn, trouble, code, torque, angle]);
  useKeys([{ keys: ['v'], label: 'read the wrench', run: () => setWanted(!wanted) }]);
  if (code === null) return { needle: null, switches: null };
  const switches = (
    <>
      <UnstyledButton className={classes.live} aria-pressed={isOn} onClick={() => setWanted(!wanted)}>
        <b>V</b> {code} {isOn ? 'is being read' : 'is not read'}
      </UnstyledButton>
      {isOn && (
        <UnstyledButton className={classes.live} aria-pressed={byItself} onClick={() => setByItself(!byItself)}>
          {byItself ? 'records by itself' : 'waits for Enter'}
        </UnstyledButton>
      )}
    </>
  );
  if (!isOn) return { needle: null, switches };
  const needle = trouble ? (
    <p className={classes.trouble} role="status">
      {trouble}
    </p>
  ) : (
    <Needle
      target={angle || torque || 1}
      unit={angle ? 'degrees' : 'N·m'}
      shows={angle ? 'angle_deg' : 'value'}
      latest={latest}
    />
  );
  return { needle, switches };
}
