/** A PIN for the bench; it shows who is there, and opens no door by itself. */
import { PasswordInput } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { NumberPad } from '../app/NumberPad';
import { usePeopleChanges } from '../shop/api';
import { Asked } from './Asked';
import type { AskedOf } from './FirstRun';

export function PinAsked({ way, person, onDone }: AskedOf & { person: Schemas['Person'] }) {
  const [pin, setPin] = useState('');
  const changes = usePeopleChanges();
  const go = async () => {
    if (await changes.change(person.username, { pin })) onDone();
  };
  return (
    <Asked
      way={way}
      question="A PIN for the bench?"
      hint="Four to eight digits. With gloves on, at a bench of the shop, it says who is there and signs what you sign."
      on="Set it"
      ready={pin.length >= 4}
      onGo={() => void go()}
    >
      <PasswordInput
        label="Your PIN"
        size="lg"
        autoComplete="off"
        inputMode="numeric"
        value={pin}
        error={changes.wrong?.message}
        onChange={(event) => setPin(event.currentTarget.value)}
      />
      <NumberPad digitsOnly value={pin} onChange={setPin} />
    </Asked>
  );
}
