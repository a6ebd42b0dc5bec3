/** One move of the way: it stands there, a dead stop, it snapped; where there is no way, on one's own word. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeys } from '../../app/keys';
import { sayClock } from '../../app/saying';
import { Choices } from '../../ledger/Choices';
import type { EntryBody, InputProps } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { StandsForm, standsAt } from '../StandsForm';
import { type MoveQuestion, useWay } from '../way';
import classes from './MoveInput.module.css';

type Props = InputProps<MoveQuestion>;

const THENS = ['stands', 'dead_stop', 'snapped'] as const;
const EMPTY: { of: string; came: (typeof THENS)[number] | null; tell: string; clock: string; reason: string } = {
  of: '',
  came: null,
  tell: '',
  clock: '',
  reason: '',
};

export function MoveInput({ bench, question, voice, wrong, busy, answer }: Props) {
  const { serial } = bench.engine;
  const [way, another] = useWay(serial, question);
  const [kept, change, forget] = useDraft(`${serial}.${question.key}`, EMPTY);
  const [leaving, setLeaving] = useState(question.ways.length === 0);
  const draft = kept.of === question.title ? kept : { ...EMPTY, of: question.title };
  const set = (part: Partial<typeof EMPTY>) => change({ ...draft, ...part });
  const move = way?.moves[0];
  const may = !busy && !question.blocked;
  const send = async (value: string, entry: EntryBody) => {
    if ((await answer(value, entry)) !== 'refused') forget();
  };
  const record = async () => {
    if (!may) return;
    if (leaving || !move) {
      const reason = draft.reason.trim();
      if (reason) await send('by feel', { kind: 'way_left', step: question.step, reason });
      return;
    }
    if (!draft.came) return;
    const then = draft.came;
    const at = then === 'stands' ? null : standsAt({ of: draft.tell, clock: draft.clock }, voice);
    const turned = { shaft: move.shaft, by_deg: move.by_deg, way: move.by_deg > 0 ? 'running' : 'back' } as const;
    await send(draft.came.replace('_', ' '), {
      kind: 'shaft_turned',
      ...turned,
      then,
      how_far: '',
      note: '',
      ...(at ? { at } : {}),
    });
  };
  const choose = (n: number) => set({ came: THENS[n] ?? null });
  useKeys([
    ...(move && !leaving
      ? THENS.map((_, n) => ({ keys: [String(n + 1)], label: `choose ${n + 1}`, run: () => choose(n) }))
      : []),
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['a'], label: 'another way', run: another },
  ]);
  const first = move?.tells.find((one) => one.clock_deg != null);
  const there =
    first?.clock_deg != null ? `${first.name} at ${sayClock(first.clock_deg, voice.seenFrom)}` : 'as far as asked';
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      {move && !leaving && (
        <>
          <Choices
            choices={[
              { title: 'It stands there', detail: there },
              { title: 'Dead stop', detail: 'leave it; say where' },
              { title: 'It snapped', detail: 'to where?' },
            ]}
            chosen={draft.came ? THENS.indexOf(draft.came) : -1}
            onChoose={choose}
          />
          {(draft.came === 'snapped' || draft.came === 'dead_stop') && (
            <div className={classes.where}>
              <StandsForm
                tells={move.tells.map(({ of, name }) => ({ of, name }))}
                stands={{ of: draft.tell, clock: draft.clock }}
                voice={voice}
                change={(part) =>
                  set({
                    ...(part.of ? { tell: part.of } : {}),
                    ...(part.clock !== undefined ? { clock: part.clock } : {}),
                  })
                }
              />
            </div>
          )}
        </>
      )}
      {leaving && (
        <div className={classes.where}>
          <TextInput
            label="How is it brought there, and what is known that the document does not say?"
            placeholder="Rockers are out; turned by feel"
            value={draft.reason}
            onChange={(event) => set({ reason: event.currentTarget.value.slice(0, 400) })}
          />
        </div>
      )}
      <div className={input.foot}>
        <span className={input.grow}>
          {question.blocked
            ? `Not yet: ${question.blocked}.`
            : 'Springs turn it: hands and wrench clear before you let go.'}
        </span>
        {move && (
          <Button variant="default" size="lg" onClick={() => setLeaving(!leaving)}>
            {leaving ? 'Keep the way' : 'Leave the way'}
          </Button>
        )}
        <Button
          size="lg"
          loading={busy}
          disabled={!may || (leaving || !move ? !draft.reason.trim() : !draft.came)}
          onClick={() => void record()}
        >
          {leaving ? 'By feel' : 'Record'}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
