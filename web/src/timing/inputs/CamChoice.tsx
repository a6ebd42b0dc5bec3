/** What is done about the cam: leave it, or one of the corrections the server worked out. */
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import classes from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';

const EMPTY = { reason: '' };
/** Verdicts on which a cam may be left without saying why. */
const REASON_FREE: string[] = ['in', 'no limit known'];

export function CamChoice({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'cam_decision'>>) {
  const cam = bench.state.timing?.cams.find((one) => one.camshaft === question.camshaft);
  const [chosen, setChosen] = useState<number>(cam?.verdict && REASON_FREE.includes(cam.verdict) ? 0 : 1);
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const offers = cam?.offers ?? [];
  const choices = [
    { title: 'Leave it', detail: cam?.advance_words ?? '', order: '', moves: [] },
    ...offers.map((offer) => ({
      title: offer.title,
      detail: `leaves ${offer.residual}`,
      order: offer.order,
      moves: offer.moves,
    })),
  ];
  const choice = choices[chosen] ?? choices[0];
  const record = async () => {
    if (!cam || !choice || busy) return;
    const { camshaft, advance_deg, rests_on } = cam;
    const { moves } = choice;
    const entry = { kind: 'cam_decision' as const, camshaft, advance_deg, moves, reason: draft.reason, rests_on };
    if ((await answer(choice.title, entry)) !== 'refused') forget();
  };
  useKeys([
    ...choices.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => setChosen(n) })),
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  if (cam?.verdict == null) return <p>Take the readings of both flanks of every valve first.</p>;
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Decide">
      <Choices choices={choices} chosen={chosen} onChoose={setChosen} />
      <div className={classes.foot}>
        <span className={classes.grow}>
          {choice?.order ? (
            choice.order
          ) : (
            <TextInput
              aria-label="Reason"
              placeholder={
                REASON_FREE.includes(cam.verdict) ? 'A reason, if you wish' : `Why is it left? It is “${cam.verdict}”.`
              }
              value={draft.reason}
              onChange={(event) => change({ reason: event.currentTarget.value })}
              onKeyDown={(event) => event.key === 'Enter' && void record()}
            />
          )}
        </span>
        <Button onClick={record} loading={busy}>
          {choice?.moves.length ? 'It is moved' : 'Leave it'}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
