/** Which way the valves are reached, with which feelers, how warm the engine is, and where the crank stands. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { say } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Undo } from '../../ledger/Undo';
import { Wrong } from '../../ledger/Wrong';
import { GaugeChoice, useGauges } from '../../shop/GaugeChoice';
import { suiting } from '../../shop/suits';
import classes from './lash.module.css';

type Ready = Schemas['LashReady'];
const WAYS: Record<Ready['way'], string> = {
  fewest: 'The fewest stops',
  book: "The book's stops",
  firing: 'Each at its firing TDC',
};
const EMPTY: { way: Ready['way'] | ''; gauge: string; chose: boolean; engine_is: string; stands: string } = {
  way: '',
  gauge: '',
  chose: false,
  engine_is: '',
  stands: '',
};

export function LashReadyForm(props: InputProps<QuestionOf<'lash_ready'>>) {
  const { bench, question, voice, wrong, busy, answer } = props;
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const offered = suiting(useGauges(), ['feeler'], null);
  const gauge = draft.chose ? draft.gauge : (offered.find((one) => !one.overdue)?.code ?? '');
  const way = draft.way || (question.ways[0]?.way ?? 'firing');
  const engineIs = draft.engine_is || question.engine_is || 'cold';
  const record = async () => {
    if (busy || question.blocked) return;
    const entry: Ready = {
      kind: 'lash_ready',
      step: question.step,
      way,
      gauge: question.needs_feelers && gauge ? gauge : null,
      engine_is: engineIs === 'hot' ? 'hot' : 'cold',
      stands_deg: draft.stands.trim() || null,
    };
    if ((await answer(WAYS[way], entry)) !== 'refused') forget();
  };
  const ways = question.ways.map((one) => one.way);
  useKeys([
    { keys: ['t'], label: 'way', run: () => change({ way: ways[(ways.indexOf(way) + 1) % ways.length] ?? way }) },
    { keys: ['x'], label: 'cold or hot', run: () => change({ engine_is: engineIs === 'cold' ? 'hot' : 'cold' }) },
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  if (question.status === 'done') return <Undo {...props} />;
  if (question.blocked)
    return (
      <section className={input.input} aria-label="Not yet">
        <div className={input.confirm}>Not yet: {say(question.blocked, voice)}.</div>
      </section>
    );
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Before the first valve">
      <div className={classes.ready}>
        <fieldset className={classes.ways}>
          <legend>How they are reached (T)</legend>
          {question.ways.map((one) => (
            <UnstyledButton key={one.way} aria-pressed={one.way === way} onClick={() => change({ way: one.way })}>
              <b>
                {WAYS[one.way]}: {one.stops}
              </b>
              <span>{say(one.words, voice)}</span>
            </UnstyledButton>
          ))}
        </fieldset>
        {question.needs_feelers && (
          <GaugeChoice
            legend="Feelers"
            gauges={offered}
            chosen={gauge}
            onChoose={(code) => change({ gauge: code, chose: true })}
          />
        )}
      </div>
      <div className={input.foot}>
        <UnstyledButton
          className={input.turned}
          data-back={question.engine_is !== null && engineIs !== question.engine_is}
          onClick={() => change({ engine_is: engineIs === 'cold' ? 'hot' : 'cold' })}
        >
          <b>X</b> engine {engineIs}
        </UnstyledButton>
        <TextInput
          className={classes.stands}
          aria-label="Crank stands, degrees after the first firing TDC"
          placeholder="crank at, ° after firing TDC"
          inputMode="decimal"
          value={draft.stands}
          onKeyDown={(event) => event.key === 'Enter' && void record()}
          onChange={(event) => change({ stands: event.currentTarget.value.slice(0, 8) })}
        />
        <Button size="lg" onClick={record} loading={busy}>
          Begin
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
