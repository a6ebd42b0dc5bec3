/** One valve: the largest leaf that goes, the smallest that does not; with shims the one that is in; hydraulic: turns after zero. */
import { Button } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useLayoutEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { NumberPad } from '../../app/NumberPad';
import { say } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { figureField } from '../../ledger/figure';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './lash.module.css';

type FieldName = 'goes' | 'not_goes' | 'shim' | 'turns';
const LABELS: Record<FieldName, string> = {
  goes: 'Goes',
  not_goes: 'Does not go',
  shim: 'Shim that is in',
  turns: 'Turns after zero',
};
const EMPTY = { goes: '', not_goes: '', shim: '', turns: '' };

export function LashReadingInput({
  bench,
  question,
  voice,
  wrong,
  busy,
  answer,
}: InputProps<QuestionOf<'lash_reading'>>) {
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}.${question.is_again}`, EMPTY);
  const fields: FieldName[] =
    question.set_by === 'hydraulic'
      ? ['turns']
      : question.asks_shim
        ? ['shim', 'goes', 'not_goes']
        : ['goes', 'not_goes'];
  const refs = useRef<Partial<Record<FieldName, HTMLInputElement | null>>>({});
  const [into, setInto] = useState<FieldName>(fields[0] ?? 'goes');
  const touch = useMediaQuery('(pointer: coarse)') ?? false;
  const [pad, setPad] = useState<boolean | null>(null);
  const first = fields[0] ?? 'goes';
  useLayoutEffect(() => refs.current[first]?.focus(), [busy, first]);
  const record = async () => {
    if (busy || question.blocked) return;
    const typed = (text: string) => (text.trim() ? { text: text.trim(), unit: voice.unit } : null);
    const { step, camshaft, cylinder, valve, place } = question;
    const entry: Schemas['LashReading'] = {
      kind: 'lash_reading',
      step,
      camshaft,
      cylinder,
      valve,
      place,
      goes: typed(draft.goes),
      not_goes: typed(draft.not_goes),
      shim: typed(draft.shim),
      turns: draft.turns.trim() || null,
      gauge: null,
    };
    const said = question.set_by === 'hydraulic' ? `${draft.turns} turns` : `${draft.goes} ${voice.unit}`;
    if ((await answer(said, entry)) !== 'refused') forget();
    refs.current[first]?.focus();
  };
  const move = (by: number) => {
    const next = fields[(fields.indexOf(into) + by + fields.length) % fields.length] ?? first;
    refs.current[next]?.focus();
  };
  useKeys([
    { keys: ['Enter', ' ', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['ArrowRight'], label: 'next field', run: () => move(1) },
    { keys: ['ArrowLeft'], label: 'field before', run: () => move(-1) },
    { keys: ['p'], label: 'number pad', run: () => setPad(!(pad ?? touch)) },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Clearance">
      <div className={classes.reading}>
        <div className={input.about}>
          <b>{question.title}</b>
          <span>
            {say(question.limits, voice)}
            {question.gauge && ` · feelers ${question.gauge}`}
            {question.shim_mm != null && ` · shim ${question.shim_mm.toFixed(2)}`}
          </span>
        </div>
        {fields.map((name) => (
          <div key={name} className={name === 'goes' || name === 'turns' ? classes.main : classes.second}>
            <label htmlFor={name}>
              {LABELS[name]}
              {name === 'turns' ? '' : `, ${voice.unit}`}
            </label>
            <input
              id={name}
              ref={(element) => {
                refs.current[name] = element;
              }}
              className={name === 'goes' || name === 'turns' ? input.figure : undefined}
              value={draft[name]}
              {...figureField(touch, wrong)}
              onFocus={() => setInto(name)}
              onChange={(event) => change({ [name]: event.currentTarget.value })}
            />
          </div>
        ))}
      </div>
      <Wrong wrong={wrong} />
      {(pad ?? touch) && <NumberPad value={draft[into]} onChange={(text) => change({ [into]: text.slice(0, 12) })} />}
      <div className={input.foot}>
        <span className={input.grow}>{say(question.advice, voice)}</span>
        <Button size="lg" onClick={() => void record()} loading={busy} disabled={Boolean(question.blocked)}>
          Record
        </Button>
      </div>
    </section>
  );
}
