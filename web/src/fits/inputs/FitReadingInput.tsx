/** One reading: figure, Enter, next place. Arrows take another place, R the one read last, N types the difference from nominal. */
import { Button, UnstyledButton } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { NumberPad } from '../../app/NumberPad';
import { sayFine } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { figureField } from '../../ledger/figure';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { useGauges } from '../../shop/GaugeChoice';
import { suiting } from '../../shop/suits';
import { useFitSheet } from '../api';
import classes from './fits.module.css';
import { useLiveGauge } from './LiveGauge';
import { PasteSheet } from './PasteSheet';

type Props = InputProps<QuestionOf<'fit_reading'>>;

interface Draft {
  text: string;
  place: string;
  plane: string;
  axis: string;
  gauge: string;
}

const AXES: Record<string, string> = { up: '↕', across: '↔' };

export function FitReadingInput({ bench, question, voice, wrong, busy, answer }: Props) {
  const empty = useMemo<Draft>(
    () => ({ text: '', place: question.place, plane: question.plane, axis: question.axis, gauge: '' }),
    [question.place, question.plane, question.axis],
  );
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, empty);
  const field = useRef<HTMLInputElement>(null);
  const touch = useMediaQuery('(pointer: coarse)') ?? false;
  const [pad, setPad] = useState<boolean | null>(null);
  const [fromNominal, setFromNominal] = useState(false);
  const [pasting, setPasting] = useState(false);
  const sheet = useFitSheet(bench, question);
  const offered = suiting(useGauges(), [], question.nominal_mm ?? null);
  useLayoutEffect(() => field.current?.focus(), [busy]);
  const base = question.set_to_mm ?? question.nominal_mm ?? null;
  const unit: Schemas['Typed']['unit'] = fromNominal ? (voice.unit === 'mm' ? 'µm' : 'thou') : voice.unit;
  const record = async (text = draft.text) => {
    if (busy || question.blocked) return;
    const { place, plane, axis } = draft;
    const entry: Schemas['FitReading'] = {
      kind: 'fit_reading',
      step: question.step,
      fit: question.fit,
      place,
      side: question.side,
      plane,
      axis,
      reading: { text, unit },
      from_nominal: fromNominal,
      gauge: draft.gauge && draft.gauge !== question.gauge ? draft.gauge : null,
    };
    const kept = draft.gauge;
    if ((await answer(`${text} ${unit}`, entry)) !== 'refused') {
      forget();
      if (kept && (place !== question.place || plane !== question.plane)) change({ gauge: '' });
    }
    field.current?.focus();
  };
  const live = useLiveGauge(draft.gauge || question.gauge || null, (text) => change({ text }));
  const move = (by: number) => {
    const at = question.places.indexOf(draft.place);
    change({ place: question.places[(at + by + question.places.length) % question.places.length] ?? draft.place });
  };
  const again = () => change(spotBefore(question, sheet) ?? {});
  const nextGauge = () => {
    const codes = offered.map((one) => one.code);
    const now = draft.gauge || question.gauge || '';
    change({ gauge: codes[(codes.indexOf(now) + 1) % codes.length] ?? '' });
  };
  useKeys([
    { keys: ['Enter', ' ', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['ArrowRight'], label: 'place', run: () => move(1) },
    { keys: ['ArrowLeft'], label: 'place before', run: () => move(-1) },
    { keys: ['r'], label: 'read it again', run: again },
    { keys: ['n'], label: 'from nominal', run: () => base !== null && setFromNominal(!fromNominal) },
    { keys: ['e'], label: 'gauge', run: nextGauge },
    { keys: ['s'], label: 'paste a sheet', run: () => setPasting(!pasting) },
    { keys: ['p'], label: 'number pad', run: () => setPad(!(pad ?? touch)) },
  ]);
  const isOther = draft.place !== question.place || draft.plane !== question.plane || draft.axis !== question.axis;
  const cells = cellsAt(sheet, question.side, draft.place);
  const spot = isOther
    ? [draft.place, draft.plane, AXES[draft.axis] ?? draft.axis].filter(Boolean).join(', ')
    : question.spot;
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Reading">
      <div className={classes.reading}>
        <div className={input.about}>
          <label htmlFor="reading">{spot}</label>
          <span>
            {draft.gauge && draft.gauge !== question.gauge ? `gauge ${draft.gauge} this time` : question.about}
            {isOther && ' · instead of the next'}
          </span>
        </div>
        <input
          id="reading"
          ref={field}
          className={input.figure}
          value={draft.text}
          {...figureField(touch, wrong)}
          onChange={(event) => change({ text: event.currentTarget.value })}
        />
        <fieldset className={classes.units} aria-label="What is typed">
          <UnstyledButton aria-pressed={!fromNominal} onClick={() => setFromNominal(false)}>
            {voice.unit}
          </UnstyledButton>
          {base !== null && (
            <UnstyledButton aria-pressed={fromNominal} onClick={() => setFromNominal(true)}>
              from {sayFine(base, voice.factor).split(' ')[0]}
              <small>{voice.unit === 'mm' ? 'µm' : 'thou'}</small>
            </UnstyledButton>
          )}
        </fieldset>
      </div>
      <Wrong wrong={wrong} />
      {live.shown}
      {(pad ?? touch) && <NumberPad value={draft.text} onChange={(text) => change({ text: text.slice(0, 12) })} />}
      <div className={input.foot}>
        <div className={classes.spots}>
          {cells.map((cell) => (
            <UnstyledButton
              key={`${cell.plane}|${cell.axis}`}
              aria-pressed={cell.plane === draft.plane && cell.axis === draft.axis}
              onClick={() => change({ plane: cell.plane, axis: cell.axis })}
            >
              {cell.plane} {AXES[cell.axis] ?? cell.axis}{' '}
              <b>{cell.size_mm !== null ? sayFine(cell.size_mm, voice.factor).split(' ')[0] : ''}</b>
            </UnstyledButton>
          ))}
        </div>
        {live.switches}
        {touch && (
          <>
            <UnstyledButton className={input.turned} onClick={() => move(1)}>
              next place
            </UnstyledButton>
            <UnstyledButton className={input.turned} onClick={nextGauge}>
              gauge
            </UnstyledButton>
          </>
        )}
        <Button size="lg" onClick={() => void record()} loading={busy} disabled={Boolean(question.blocked)}>
          Record
        </Button>
      </div>
      {pasting && <PasteSheet bench={bench} question={question} onClose={() => setPasting(false)} />}
    </section>
  );
}

interface CellAt {
  plane: string;
  axis: string;
  size_mm: number | null;
}

/** What was read at one place of the side that is read. */
function cellsAt(sheet: Schemas['FitSheet'] | undefined, side: string, place: string): CellAt[] {
  const line = sheet?.lines.find((one) => one.place === place);
  if (!sheet || !line) return [];
  return sheet.columns.flatMap((column, n) =>
    column.side === side ? [{ plane: column.plane, axis: column.axis, size_mm: line.cells[n]?.size_mm ?? null }] : [],
  );
}

/** The spot that comes before the one that is asked, in the order of reading. */
function spotBefore(
  question: QuestionOf<'fit_reading'>,
  sheet: Schemas['FitSheet'] | undefined,
): Partial<Draft> | null {
  if (!sheet) return null;
  const order = sheet.lines.flatMap((line) =>
    sheet.columns
      .filter((column) => column.side === question.side)
      .map((column) => ({ place: line.place, plane: column.plane, axis: column.axis })),
  );
  const at = order.findIndex(
    (one) => one.place === question.place && one.plane === question.plane && one.axis === question.axis,
  );
  return at > 0 ? (order[at - 1] ?? null) : null;
}
