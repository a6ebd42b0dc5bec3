/** A span of belt by its pitch, typed or from a recording, and a chain's elongation by a pull; no engine is needed. */
import { Button, FileButton, TextInput } from '@mantine/core';
import { useDebouncedValue, useLocalStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem } from '../api/client';
import { WorkedLines } from '../app/WorkedLines';
import classes from '../app/Workings.module.css';
import { driveWorkingsQuery, readPluck } from './api';
import { canListen, listen } from './listen';

const BEGINS = {
  span_mm: '',
  mass_g_m: '',
  tension_n: '',
  frequency_hz: '',
  pulled_mm: '',
  links: '',
  pitch_mm: '',
  limit_percent: '',
};
type Key = keyof typeof BEGINS;

const FIELDS: { key: Key; label: string }[] = [
  { key: 'span_mm', label: 'Free span of the belt, mm' },
  { key: 'mass_g_m', label: 'Mass of the belt, g a metre' },
  { key: 'tension_n', label: 'Tension wanted, N' },
  { key: 'frequency_hz', label: 'It sounds at, Hz' },
  { key: 'pulled_mm', label: 'Chain pulled straight, mm' },
  { key: 'links', label: 'Over so many links' },
  { key: 'pitch_mm', label: 'Pitch when new, mm' },
  { key: 'limit_percent', label: 'Limit, %' },
];

export function DriveWorkings() {
  const [typed, setTyped] = useLocalStorage({
    key: 'gurvo.workings.drive',
    defaultValue: BEGINS,
    getInitialValueInEffect: false,
  });
  const [settled] = useDebouncedValue(typed, 250);
  const { data, error } = useQuery({ ...driveWorkingsQuery(settled), placeholderData: (before) => before });
  const [heard, setHeard] = useState('');
  const wrong = error instanceof ApiProblem ? error : null;
  const hear = async (file: File | null) => {
    if (!file) return;
    try {
      const found = await readPluck(file, typed);
      setHeard(`It sounds at ${found.frequency_hz} Hz, ${Math.round(100 * found.share)} % of the recording.`);
      setTyped({ ...typed, frequency_hz: String(found.frequency_hz) });
    } catch (problem) {
      setHeard(problem instanceof ApiProblem ? problem.message : 'The server does not answer; type the pitch.');
    }
  };
  const pluckNow = async () => {
    setHeard('Pluck the span now.');
    try {
      await hear(await listen());
    } catch {
      setHeard('This browser has no microphone for the page, or nobody allowed it; take a recording instead.');
    }
  };
  return (
    <section aria-label="Belt and chain">
      <h2>Belt and chain</h2>
      <div className={classes.workings}>
        <form className={classes.asked} aria-label="Span and chain" onSubmit={(event) => event.preventDefault()}>
          {FIELDS.map(({ key, label }) => (
            <TextInput
              key={key}
              label={label}
              inputMode="decimal"
              value={typed[key]}
              error={wrong?.field.endsWith(key) ? wrong.message : undefined}
              onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value.slice(0, 12) })}
            />
          ))}
          <FileButton accept=".wav,audio/wav" onChange={hear}>
            {(props) => (
              <Button variant="default" {...props}>
                Recording of the plucked span
              </Button>
            )}
          </FileButton>
          {canListen() && (
            <Button variant="default" onClick={pluckNow}>
              Listen to it now
            </Button>
          )}
        </form>
        <div>
          {heard && <p role="status">{heard}</p>}
          {wrong && (
            <p role="alert" className={classes.wrong}>
              {wrong.message}
            </p>
          )}
          {data?.length === 0 && (
            <p className={classes.soft}>
              Type span and mass with a tension or a pitch; or what a chain measures over its links. The maker's figure
              for this belt comes first.
            </p>
          )}
          <WorkedLines lines={data ?? []} label="What can be said of span and chain" />
        </div>
      </div>
    </section>
  );
}
