/** A step that is added after another: something to do or look at, or one for what nobody fits, measures or tightens yet. */
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import classes from './RunSheet.module.css';
import type { Writing } from './writing';

type Step = Schemas['RunStep'];
type Stage = Schemas['RunStage'];

/** What can be added that names nothing else; steps of parts that have none yet stand beside it. */
const PLAIN = [
  { label: 'something to do', says: '', step: { does: 'do' } },
  { label: 'something to look at', says: '', step: { does: 'inspect' } },
  { label: 'a bead of sealant', says: '', step: { does: 'seal' } },
];

interface AddStepProps {
  stage: Stage;
  after: Step;
  steps: string[];
  addable: Schemas['Addable'][];
  writing: Writing;
  onDone: (at?: string) => void;
}

export function AddStep({ stage, after, steps, addable: ofParts, writing, onDone }: AddStepProps) {
  const addable = [...PLAIN, ...ofParts];
  const [says, setSays] = useState('');
  const [label, setLabel] = useState(PLAIN[0]?.label ?? '');
  const chosen = addable.find((one) => one.label === label);
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (!says.trim() || !chosen) return;
    const id = freeId(says, steps);
    const value = { id, ...chosen.step, says: says.trim(), needs: [{ done: after.id }] };
    const to = `/stages/${stage.id}/steps`;
    if (await writing.write({ does: 'add', to, after: after.id, value })) onDone(`${to}/${id}`);
  };
  return (
    <form className={classes.form} onSubmit={add} onKeyDown={(event) => event.key === 'Escape' && onDone()}>
      <TextInput label="Says" autoFocus value={says} onChange={(event) => setSays(event.currentTarget.value)} />
      <NativeSelect
        label="It is"
        data={addable.map((one) => one.label)}
        value={label}
        onChange={(event) => {
          const next = addable.find((one) => one.label === event.currentTarget.value);
          setLabel(event.currentTarget.value);
          // words that nobody has written yet come with the part
          if (next?.says && (says === '' || says === chosen?.says)) setSays(next.says);
        }}
      />
      <div className={classes.foot}>
        <Button variant="default" onClick={() => onDone()}>
          Back
        </Button>
        <Button type="submit">Add</Button>
      </div>
    </form>
  );
}

/** A short word from what a step says, that no other step has. */
function freeId(says: string, taken: string[]): string {
  const plain =
    says
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 32) || 'step';
  let id = plain;
  for (let n = 2; taken.includes(id); n += 1) id = `${plain}-${n}`;
  return id;
}
