/** One step of the run as it is changed in place: words, why, what must be so before, cautions, tools, minutes, who does it. */
import { Button, Checkbox, Pill, Select, Textarea, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import { type Draft, needsQuery } from './api';
import classes from './RunSheet.module.css';
import type { Writing } from './writing';

type Step = Schemas['RunStep'];
type Need = Step['needs'][number];

interface EditStepProps {
  draft: Draft;
  step: Step;
  writing: Writing;
  onDone: () => void;
  onAll: (at: string) => void;
}

interface Typed {
  says: string;
  why: string;
  minutes: string;
  cautions: string;
  tools: string;
  picture: string;
  covers: boolean;
  by_lead: boolean;
  needs: Need[];
}

export function EditStep({ draft, step, writing, onDone, onAll }: EditStepProps) {
  const [typed, setTyped] = useState<Typed>(() => asTyped(step));
  const put = (change: Partial<Typed>) => setTyped({ ...typed, ...change });
  const save = async (event: FormEvent) => {
    event.preventDefault();
    for (const [key, value] of changesOf(step, typed))
      if (!(await writing.write({ does: 'set', at: `${step.at}/${key}`, value }))) return;
    onDone();
  };
  return (
    <form className={classes.form} onSubmit={save} onKeyDown={(event) => event.key === 'Escape' && onDone()}>
      <TextInput
        label="Says"
        autoFocus
        value={typed.says}
        onChange={(event) => put({ says: event.currentTarget.value })}
      />
      <TextInput label="Why" value={typed.why} onChange={(event) => put({ why: event.currentTarget.value })} />
      <Needs draft={draft} step={step} needs={typed.needs} onChange={(needs) => put({ needs })} />
      <div className={classes.pair}>
        <Textarea
          label="Cautions, one a line"
          autosize
          minRows={1}
          value={typed.cautions}
          onChange={(event) => put({ cautions: event.currentTarget.value })}
        />
        <Textarea
          label="At hand: tools, one a line"
          autosize
          minRows={1}
          value={typed.tools}
          onChange={(event) => put({ tools: event.currentTarget.value })}
        />
        <TextInput
          label="Minutes"
          inputMode="decimal"
          value={typed.minutes}
          onChange={(event) => put({ minutes: event.currentTarget.value })}
        />
        <TextInput
          label="A picture is wanted of"
          value={typed.picture}
          onChange={(event) => put({ picture: event.currentTarget.value })}
        />
      </div>
      <Checkbox
        label="hides what cannot be seen afterwards"
        checked={typed.covers}
        onChange={(event) => put({ covers: event.currentTarget.checked })}
      />
      <Checkbox
        label="the lead does it"
        checked={typed.by_lead}
        onChange={(event) => put({ by_lead: event.currentTarget.checked })}
      />
      <div className={classes.foot}>
        <Button variant="default" onClick={() => onAll(step.at)}>
          Every field of it
        </Button>
        <Button variant="default" onClick={onDone}>
          Back
        </Button>
        <Button type="submit">Keep</Button>
      </div>
    </form>
  );
}

function asTyped({ says, why, minutes, cautions, tools, picture, covers, by_lead, needs }: Step): Typed {
  return {
    says,
    why,
    picture,
    covers,
    by_lead,
    needs,
    minutes: minutes === null ? '' : String(minutes),
    cautions: cautions.join('\n'),
    tools: tools.join('\n'),
  };
}

const linesOf = (text: string) =>
  text
    .split('\n')
    .map((one) => one.trim())
    .filter(Boolean);

/** What is typed otherwise than it was, by the format's keys. */
function changesOf(step: Step, typed: Typed): [string, Need['need'][string]][] {
  const minutes = typed.minutes.trim() === '' ? null : Number(typed.minutes.replace(',', '.'));
  const before = asTyped(step);
  const all: [keyof Typed, string, Need['need'][string]][] = [
    ['says', 'says', typed.says.trim()],
    ['why', 'why', typed.why.trim()],
    ['minutes', 'minutes', Number.isNaN(minutes) ? typed.minutes : minutes],
    ['covers', 'covers', typed.covers],
    ['needs', 'needs', typed.needs.map((one) => one.need)],
    ['cautions', 'cautions', linesOf(typed.cautions)],
    ['tools', 'tools', linesOf(typed.tools)],
    ['picture', 'picture', typed.picture.trim()],
    ['by_lead', 'by', typed.by_lead ? 'lead' : 'builder'],
  ];
  return all.filter(([name]) => typed[name] !== before[name]).map(([, key, value]) => [key, value]);
}

interface NeedsProps {
  draft: Draft;
  step: Step;
  needs: Need[];
  onChange: (needs: Need[]) => void;
}

/** What must be so before, as chips: taken off by their cross or Backspace, one more chosen by typing a part of it. */
function Needs({ draft, step, needs, onChange }: NeedsProps) {
  const { data } = useQuery(needsQuery(draft.id, draft.changes));
  const [words, setWords] = useState('');
  const there = new Set(needs.map((one) => one.words));
  const own = (one: Need) => one.need.done === step.id || one.need.cured === step.id;
  const free = [
    ...new Map(
      (data ?? []).filter((one) => !there.has(one.words) && !own(one)).map((one) => [one.words, one]),
    ).values(),
  ];
  return (
    <div className={classes.needs}>
      {needs.map((one) => (
        <Pill
          key={one.words}
          size="lg"
          withRemoveButton
          removeButtonProps={{ 'aria-label': `Not needed: ${one.words}`, 'aria-hidden': false }}
          onRemove={() => onChange(needs.filter((other) => other !== one))}
        >
          {one.words}
        </Pill>
      ))}
      <div>
        <Select
          label="It needs before"
          placeholder={needs.length > 0 ? 'one more; Backspace takes the last off' : 'nothing yet'}
          searchable
          selectFirstOptionOnChange
          limit={60}
          nothingFoundMessage="nothing is called so"
          data={free.map((one) => one.words)}
          value={null}
          searchValue={words}
          onSearchChange={setWords}
          onKeyDown={(event) => {
            if (event.key === 'Backspace' && words === '') onChange(needs.slice(0, -1));
            if (event.key === 'Enter' && words !== '') event.preventDefault(); // it chooses, and keeps nothing yet
          }}
          onChange={(chosen) => {
            const found = free.find((one) => one.words === chosen);
            if (found) onChange([...needs, found]);
            setWords('');
          }}
        />
      </div>
    </div>
  );
}
