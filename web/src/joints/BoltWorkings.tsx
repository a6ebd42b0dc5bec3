/** One bolt without an engine: what a torque and an angle do to it, each figure with its formula and where it is from. */
import { NativeSelect, TextInput } from '@mantine/core';
import { useDebouncedValue, useLocalStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { ApiProblem } from '../api/client';
import { WorkedLines } from '../app/WorkedLines';
import classes from '../app/Workings.module.css';
import { workingsQuery } from './api';
import { TORQUE_UNITS } from './torque';

const SURFACES = ['dry', 'oiled', 'moly', 'assembly lube', 'threadlocker', 'sealant'];
const CLASSES = ['', '4.6', '5.8', '6.8', '8.8', '9.8', '10.9', '12.9', 'grade 2', 'grade 5', 'grade 8'];
const MATERIALS = ['steel', 'cast iron', 'aluminium', 'magnesium'];
const BEGINS = {
  thread: 'M10x1.5',
  property_class: '8.8',
  threads: 'oiled',
  head: 'oiled',
  torque: '45',
  unit: 'N·m',
  angle_deg: '',
  grip_mm: '',
  free_thread_mm: '',
  material: 'cast iron',
  lever_mm: '',
  extension_mm: '',
  extension_deg: '',
};
type Key = keyof typeof BEGINS;

const FIELDS: { key: Key; label: string; choices?: string[] }[] = [
  { key: 'thread', label: 'Thread, such as M10x1.25 or 3/8-16' },
  { key: 'property_class', label: 'Class, as on its head', choices: CLASSES },
  { key: 'threads', label: 'Threads', choices: SURFACES },
  { key: 'head', label: 'Under the head', choices: SURFACES },
  { key: 'torque', label: 'Torque' },
  { key: 'unit', label: 'Unit', choices: TORQUE_UNITS },
  { key: 'angle_deg', label: 'Angle after snug, degrees' },
  { key: 'grip_mm', label: 'Grip, mm' },
  { key: 'free_thread_mm', label: 'Free thread in it, mm' },
  { key: 'material', label: 'What is clamped', choices: MATERIALS },
  { key: 'lever_mm', label: "The wrench's lever, mm" },
  { key: 'extension_mm', label: 'Extension, mm' },
  { key: 'extension_deg', label: 'Extension at, degrees' },
];

export function BoltWorkings() {
  const [typed, setTyped] = useLocalStorage({
    key: 'gurvo.workings',
    defaultValue: BEGINS,
    getInitialValueInEffect: false,
  });
  const [settled] = useDebouncedValue(typed, 250);
  const { data, error } = useQuery({ ...workingsQuery(settled), placeholderData: (before) => before });
  const wrong = error instanceof ApiProblem ? error : null;
  const at = (key: Key) => (wrong?.field.endsWith(key) ? wrong.message : undefined);
  return (
    <section aria-label="One bolt">
      <h2>One bolt</h2>
      <div className={classes.workings}>
        <form className={classes.asked} aria-label="The bolt" onSubmit={(event) => event.preventDefault()}>
          {FIELDS.map(({ key, label, choices }) =>
            choices ? (
              <NativeSelect
                key={key}
                label={label}
                data={choices.map((value) => ({ value, label: value || 'not known' }))}
                value={typed[key]}
                error={at(key)}
                onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value })}
              />
            ) : (
              <TextInput
                key={key}
                label={label}
                inputMode={key === 'thread' ? 'text' : 'decimal'}
                value={typed[key]}
                error={at(key)}
                onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value.slice(0, 20) })}
              />
            ),
          )}
        </form>
        <div>
          {wrong && (
            <p role="alert" className={classes.wrong}>
              {wrong.message}
            </p>
          )}
          {error && !wrong && <p role="alert">The server does not answer; try again.</p>}
          <WorkedLines lines={data ?? []} label="What can be said of it" />
        </div>
      </div>
    </section>
  );
}
