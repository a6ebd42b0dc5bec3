/** What two opposite pointers read at one place: the figure under each, with its side on a folded wheel. */
import { Button, UnstyledButton } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useLayoutEffect, useRef } from 'react';
import { useKeys } from '../../app/keys';
import { say } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { figureField } from '../../ledger/figure';
import classes from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import own from './OppositeInput.module.css';
import type { ReadingDraft } from './reading';

type Side = ReadingDraft['side'];
const EMPTY = { wheel: '', side: '' as Side, opposite: '', otherSide: '' as Side };

export function OppositeInput(props: InputProps<QuestionOf<'wheel_check'>>) {
  const { bench, question, voice, wrong, busy, answer } = props;
  const sides = bench.state.timing?.wheel?.sides ?? [];
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const first = useRef<HTMLInputElement>(null);
  const touch = useMediaQuery('(pointer: coarse)') ?? false;
  useLayoutEffect(() => first.current?.focus(), [busy]);
  const record = async () => {
    if (busy) return;
    const entry = {
      kind: 'wheel_check' as const,
      wheel: { text: draft.wheel, side: draft.side || null },
      opposite: { text: draft.opposite, side: draft.otherSide || null },
    };
    if ((await answer(`${draft.wheel}° and ${draft.opposite}°`, entry)) !== 'refused') forget();
  };
  useKeys([{ keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() }]);
  const figure = (name: 'wheel' | 'opposite') => ({
    id: name,
    value: draft[name],
    ...figureField(touch, wrong),
    onChange: (event: { currentTarget: { value: string } }) =>
      change({ [name]: event.currentTarget.value.slice(0, 8) }),
  });
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Opposite pointers">
      <div className={own.pointers}>
        {(['wheel', 'opposite'] as const).map((name) => {
          const where = name === 'wheel' ? 'side' : 'otherSide';
          return (
            <div key={name}>
              <label htmlFor={name}>{name === 'wheel' ? 'First pointer' : 'The one opposite'}</label>
              <input {...figure(name)} ref={name === 'wheel' ? first : undefined} className={classes.figure} />
              {sides.length > 0 && (
                <fieldset className={classes.sides} data-count={sides.length} aria-label={`Side, ${name}`}>
                  {sides.map((side) => (
                    <UnstyledButton
                      key={side}
                      aria-pressed={draft[where] === side}
                      onClick={() => change({ [where]: side })}
                    >
                      {side}
                    </UnstyledButton>
                  ))}
                </fieldset>
              )}
            </div>
          );
        })}
      </div>
      <Wrong wrong={wrong} />
      <div className={classes.foot}>
        <span className={classes.grow}>{say(question.found, voice)}</span>
        <Button size="lg" onClick={record} loading={busy}>
          Record
        </Button>
      </div>
    </section>
  );
}
