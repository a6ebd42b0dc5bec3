/** Who else builds here: each with a role, a first password, and a PIN for the bench. */
import { Button, PasswordInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { peopleQuery, usePeopleChanges } from '../shop/api';
import { PersonFields } from '../shop/PersonFields';
import { Asked } from './Asked';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

const NOBODY: Schemas['PersonIn'] & { pin: string } = {
  username: '',
  name: '',
  role: 'builder',
  password: '',
  pin: '',
};

export function BuildersAsked({ way, onDone }: AskedOf) {
  const { person } = usePerson();
  const { data } = useQuery(peopleQuery);
  const [typed, setTyped] = useState(NOBODY);
  const [added, setAdded] = useState('');
  const changes = usePeopleChanges();
  const others = (data ?? []).filter((one) => one.username !== person.username);
  const change = (part: Partial<typeof NOBODY>) => setTyped({ ...typed, ...part });
  const wrong = (field: string) => (changes.wrong?.field === field ? changes.wrong.message : undefined);
  const isTyped = typed.username !== '' && typed.name !== '' && typed.password !== '';
  const add = async () => {
    const { pin, ...who } = typed;
    // whoever was added and whose PIN was refused is not added a second time
    if (added !== who.username && !(await changes.add(who))) return false;
    setAdded(who.username);
    if (pin && !(await changes.change(who.username, { pin }))) return false;
    setTyped(NOBODY);
    return true;
  };
  const go = async () => {
    if (!isTyped || (await add())) onDone();
  };
  return (
    <Asked
      way={way}
      question="Who else builds here?"
      hint="Everybody enters under his own name: it stands beside every figure. A viewer looks, a builder enters, a lead signs."
      on={isTyped ? 'Add and go on' : others.length > 0 ? 'That is all' : 'Nobody else'}
      wrong={['username', 'name', 'password', 'pin'].some(wrong) ? undefined : changes.wrong?.message}
      onGo={() => void go()}
    >
      {others.length > 0 && (
        <ul className={classes.added}>
          {others.map((one) => (
            <li key={one.username}>
              <b>{one.name}</b> {one.username}, {one.role}
              {one.has_pin && ', with a PIN'}
            </li>
          ))}
        </ul>
      )}
      <div className={classes.two}>
        <PersonFields {...{ typed, change, wrong }} />
        <PasswordInput
          label="PIN, if wanted"
          autoComplete="off"
          inputMode="numeric"
          value={typed.pin}
          error={wrong('pin')}
          onChange={(event) => change({ pin: event.currentTarget.value })}
        />
        <Button variant="default" mt="auto" disabled={!isTyped} onClick={() => void add()}>
          Add, and another one
        </Button>
      </div>
    </Asked>
  );
}
