/** The first engine family: described on screen, out of a file, or one of the examples. */
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { sentenceOf } from '../api/client';
import { familiesQuery } from '../engine/api';
import { useBegin } from '../writer/begin';
import { Asked } from './Asked';
import { examplesQuery, useTakeExample } from './api';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

const DESCRIBE = '';
const FILE = 'file';

export function FamilyAsked({ way, onDone }: AskedOf) {
  const families = useQuery(familiesQuery).data ?? [];
  const examples = useQuery(examplesQuery).data ?? [];
  const [chosen, setChosen] = useState(DESCRIBE);
  const file = useRef<HTMLInputElement>(null);
  const take = useTakeExample();
  const { begin, fromFile, wrong } = useBegin();
  const isThere = families.length > 0;
  const go = () => {
    if (chosen === FILE) file.current?.click();
    else if (chosen !== DESCRIBE) take.mutate(chosen, { onSuccess: onDone });
    else if (isThere) onDone();
    else void begin({});
  };
  const onWith = chosen === FILE ? 'Choose the file' : 'Begin with this example';
  const option = (value: string, name: string, about: string) => (
    <label key={value} className={classes.line}>
      <input type="radio" name="family" checked={chosen === value} onChange={() => setChosen(value)} />
      <span>
        <b>{name}</b>
        <small>{about}</small>
      </span>
    </label>
  );
  return (
    <Asked
      way={way}
      question="Which engine do you build first?"
      hint="No book is needed: what is on the crank's nose, what it passes, how it is known to stand right. An example is an invented engine to learn by."
      on={chosen !== DESCRIBE ? onWith : isThere ? 'Go on' : 'Describe it now'}
      pending={take.isPending}
      wrong={wrong || (take.error ? sentenceOf(take.error) : undefined)}
      onGo={go}
    >
      <fieldset className={classes.list} aria-label="Where it is from">
        {isThere
          ? option(DESCRIBE, families.map((one) => one.name).join(', '), 'in the shop already')
          : option(
              DESCRIBE,
              'An engine of yours',
              'described on screen, question by question; this goes on afterwards',
            )}
        {option(FILE, 'From a file', 'an engine document, JSON or JSON5')}
        {examples
          .filter((one) => !families.some((own) => own.code === one.code))
          .map((one) => option(one.code, `Example: ${one.name}`, `${one.layout}, ${one.fuel}`))}
      </fieldset>
      <input
        ref={file}
        type="file"
        hidden
        accept=".json,.json5,application/json,text/plain"
        onChange={(event) => void fromFile(event.currentTarget.files?.[0] ?? null)}
      />
    </Asked>
  );
}
