/** With what a side is read: gauge, what a comparator was set to, how warm the part is, and that it is as the book has it. */
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
import classes from './fits.module.css';
import { MoreOfFit } from './MoreOfFit';

type Ready = Schemas['FitsReady'];

const EMPTY = {
  gauge: '',
  chose: false,
  part_c: '',
  gauge_c: '',
  standard: '',
  standard_u: '',
  read_at: '',
  plunger_deg: '',
  as_asked: false,
};

export function FitsReadyForm(props: InputProps<QuestionOf<'fits_ready'>>) {
  const { bench, question, voice, wrong, busy, answer } = props;
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}.${question.side}`, EMPTY);
  const offered = suiting(useGauges(), question.kinds.length ? kindsFor(question) : [], question.nominal_mm ?? null);
  const gauge = draft.chose ? draft.gauge : (offered.find((one) => !one.overdue)?.code ?? '');
  const isBore = offered.find((one) => one.code === gauge)?.kind === 'bore';
  const standard = draft.standard || (isBore && question.nominal_mm != null ? String(question.nominal_mm) : '');
  const record = async () => {
    if (busy || question.blocked) return;
    const typed = (text: string, unit: Schemas['Typed']['unit']) => (text.trim() ? { text: text.trim(), unit } : null);
    const entry: Ready = {
      kind: 'fits_ready',
      step: question.step,
      fit: question.fit,
      side: question.side,
      gauge: gauge || null,
      as_asked: draft.as_asked || !question.condition,
      part_c: draft.part_c.trim() || null,
      gauge_c: draft.gauge_c.trim() || null,
      standard: isBore ? typed(standard, 'mm') : null,
      standard_u: isBore ? typed(draft.standard_u, 'µm') : null,
      read_at: question.radius_mm != null ? typed(draft.read_at, 'mm') : null,
      plunger_deg: question.radius_mm != null ? draft.plunger_deg.trim() || null : null,
    };
    if ((await answer(gauge || 'no gauge named', entry)) !== 'refused') forget();
  };
  useKeys([
    { keys: ['x'], label: 'it is so', run: () => change({ as_asked: !draft.as_asked }) },
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  if (question.status === 'done')
    return (
      <>
        <MoreOfFit {...props} />
        <Undo {...props} wrong={null} />
      </>
    );
  if (question.blocked)
    return (
      <section className={input.input} aria-label="Not yet">
        <div className={input.confirm}>Not yet: {say(question.blocked, voice)}.</div>
      </section>
    );
  const field = (
    key: 'part_c' | 'gauge_c' | 'standard' | 'standard_u' | 'read_at' | 'plunger_deg',
    label: string,
    shown?: string,
  ) => (
    <TextInput
      label={label}
      inputMode="decimal"
      value={shown ?? draft[key]}
      onKeyDown={(event) => event.key === 'Enter' && void record()}
      onChange={(event) => change({ [key]: event.currentTarget.value.slice(0, 12) })}
    />
  );
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Before the first reading">
      <div className={classes.ready}>
        <GaugeChoice
          legend={question.nominal_mm != null ? `Gauge, for ${question.nominal_mm} mm` : 'Gauge'}
          gauges={offered}
          chosen={gauge}
          onChoose={(code) => change({ gauge: code, chose: true })}
        />
        <div className={classes.fields}>
          {field('part_c', 'Part, °C')}
          {field('gauge_c', 'Gauge, °C, if another')}
          {question.radius_mm != null && field('read_at', `Dial at a radius of, mm; counts at ${question.radius_mm}`)}
          {question.radius_mm != null && field('plunger_deg', 'Plunger aslant to the tooth, °')}
          {isBore && field('standard', 'Set to, mm', standard)}
          {isBore && field('standard_u', 'U of what set it, µm')}
        </div>
      </div>
      <div className={input.foot}>
        {question.condition ? (
          <UnstyledButton
            className={input.turned}
            aria-pressed={draft.as_asked}
            data-back={!draft.as_asked}
            onClick={() => change({ as_asked: !draft.as_asked })}
          >
            <b>X</b> {draft.as_asked ? question.condition : `${question.condition}? Press X`}
          </UnstyledButton>
        ) : (
          <span className={input.grow} />
        )}
        <Button size="lg" onClick={record} loading={busy}>
          Ready to read
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}

/** Of the ways the book names those that go with this side: a journal is not read with a bore gauge. */
function kindsFor(question: QuestionOf<'fits_ready'>): string[] {
  const other = question.side === 'outer' ? 'micrometer' : question.side === 'inner' ? 'bore' : '';
  const kinds = question.kinds.filter((kind) => kind !== other);
  return kinds.length ? kinds : question.kinds;
}
