/** One big figure from the wheel, its side, and a length where the method needs one. Enter, Space or PageDown records. */
import { Button, UnstyledButton } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useKeys } from '../../app/keys';
import { NumberPad } from '../../app/NumberPad';
import { say } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { figureField } from '../../ledger/figure';
import classes from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { LiveReadings } from './LiveReadings';
import { APPROACHES, otherSide, type ReadingDraft, toEntry } from './reading';

export function ReadingInput({
  bench,
  question,
  voice,
  wrong,
  busy,
  answer,
}: InputProps<QuestionOf<'tdc_reading' | 'lift_reading'>>) {
  const sides = bench.state.timing?.wheel?.sides ?? [];
  const empty = useMemo<ReadingDraft>(
    () => ({ wheel: '', side: question.expected_side ?? '', length: '', approach: 'running way' }),
    [question.expected_side],
  );
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, empty);
  const input = useRef<HTMLInputElement>(null);
  const touch = useMediaQuery('(pointer: coarse)') ?? false;
  const [pad, setPad] = useState<boolean | null>(null);
  const typesLength = question.field != null && question.field.asked_mm == null;
  const [into, setInto] = useState<'wheel' | 'length'>(typesLength ? 'length' : 'wheel');
  // the figure has the focus back after every answer
  useLayoutEffect(() => input.current?.focus(), [busy]);

  const record = async () => {
    const entry = toEntry(question, draft, voice.unit);
    if (busy) return;
    const kind = await answer(`${draft.wheel}° ${draft.side}`.trim(), entry);
    // the drop stays for the partner of a pair; everything else begins empty
    if (kind !== 'refused') forget();
    input.current?.focus();
  };
  const turn = (way: 'before' | 'after' | 'centre') => change({ side: otherSide(draft.side, way, sides) });
  const nextApproach = () =>
    change({ approach: APPROACHES[(APPROACHES.indexOf(draft.approach) + 1) % APPROACHES.length] ?? 'running way' });
  const at = draft.side ? sides.indexOf(draft.side) : -1;
  const cycle = () => change({ side: sides[(at + 1) % sides.length] ?? '' });
  useKeys([
    { keys: ['Enter', ' ', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['b'], label: 'before', run: () => turn('before') },
    { keys: ['a'], label: 'after', run: () => turn('after') },
    { keys: ['d'], label: 'TDC / BDC', run: () => turn('centre') },
    { keys: ['*'], label: 'next side', run: cycle },
    { keys: ['t', '/'], label: 'how it came', run: nextApproach },
    { keys: ['p'], label: 'number pad', run: () => setPad(!(pad ?? touch)) },
  ]);
  const figure = (name: 'wheel' | 'length') => ({
    id: name,
    value: draft[name],
    ...figureField(touch, wrong),
    onFocus: () => setInto(name),
    onChange: (event: { currentTarget: { value: string } }) => change({ [name]: event.currentTarget.value }),
  });
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Reading">
      <div className={classes.reading}>
        <div className={classes.about}>
          <label htmlFor="wheel">Wheel reads</label>
          <span>{say(question.wheel_detail, voice)}</span>
        </div>
        {typesLength ? (
          <div className={classes.length}>
            <label htmlFor="length">
              {question.field?.label}, {voice.unit}
            </label>
            <input {...figure('length')} />
          </div>
        ) : (
          <span />
        )}
        <input {...figure('wheel')} ref={input} className={classes.figure} />
        {sides.length > 0 ? (
          <fieldset className={classes.sides} data-count={sides.length} aria-label="Side">
            {sides.map((side) => (
              <UnstyledButton key={side} aria-pressed={draft.side === side} onClick={() => change({ side })}>
                {side}
              </UnstyledButton>
            ))}
          </fieldset>
        ) : (
          <span />
        )}
      </div>
      <Wrong wrong={wrong} />
      <LiveReadings
        wheel={bench.state.timing?.wheel?.wheel_gauge ?? ''}
        dial={bench.state.timing?.wheel?.dial_gauge ?? ''}
        sweeps={question.kind === 'tdc_reading' && question.method === 'fit'}
        onTake={(wheel, length) => change(typesLength ? { wheel, length } : { wheel })}
        onRest={(wheel, length) => {
          if (draft.wheel === '') change(typesLength ? { wheel, length } : { wheel });
        }}
        onPoint={async (wheel, length) => {
          await answer(`${wheel}° ${length}`, toEntry(question, { ...draft, wheel, length }, 'mm'));
        }}
      />
      {(pad ?? touch) && <NumberPad value={draft[into]} onChange={(text) => change({ [into]: text.slice(0, 12) })} />}
      <div className={classes.foot}>
        <UnstyledButton className={classes.turned} data-back={draft.approach !== 'running way'} onClick={nextApproach}>
          <b>T</b> came {draft.approach === 'running way' ? 'the running way' : draft.approach}
        </UnstyledButton>
        {question.kind === 'lift_reading' && question.expected_words && (
          <span className={classes.card}>card: {question.expected_words}</span>
        )}
        <Button onClick={record} loading={busy}>
          Record
        </Button>
      </div>
    </section>
  );
}
