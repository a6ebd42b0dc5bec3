/** One pull: Enter when the wrench has clicked; the figure at the end where it has a scale. Arrows take another bolt of the same stage. */
import { Button, UnstyledButton } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { NumberPad } from '../../app/NumberPad';
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import { figureField } from '../../ledger/figure';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { gaugesQuery } from '../../shop/api';
import { TORQUE_UNITS, useTorqueUnit } from '../torque';
import classes from './joints.module.css';
import { type ReadPull, useLiveWrench } from './LiveWrench';
import { MoreOfJoint, useMore } from './MoreOfJoint';
import { TraceFile } from './TraceFile';

type Props = InputProps<QuestionOf<'pull'>>;

const DONE: Record<string, string> = {
  hand: 'All finger tight',
  loosen: 'Loosened',
  draw_down: 'All of them down',
  wait: 'It has rested',
  said: 'Done as it says',
};

export function PullInput(props: Props) {
  const { question } = props;
  const more = useMore();
  if (question.asks_torque) return <Measured {...props} more={more} />;
  const { step, stage, turn, fastener } = question;
  return (
    <>
      <Confirm
        {...props}
        what={question.hint}
        button={DONE[question.does] ?? 'Done'}
        entry={question.blocked ? null : { kind: 'pull', step, stage, turn, fastener, note: '' }}
      />
      {more.isOpen ? <MoreOfJoint {...props} wrong={null} /> : more.button}
    </>
  );
}

interface Draft {
  torque: string;
  angle: string;
  before: string;
  /** Another bolt than the next. */
  other: string;
  by_eye: boolean;
}

function Measured(props: Props & { more: ReturnType<typeof useMore> }) {
  const { bench, question, wrong, busy, answer, more } = props;
  const empty = useMemo<Draft>(() => ({ torque: '', angle: '', before: '', other: '', by_eye: false }), []);
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, empty);
  const [unit, setUnit] = useTorqueUnit();
  const field = useRef<HTMLInputElement>(null);
  const touch = useMediaQuery('(pointer: coarse)') ?? false;
  // most wrenches only click: the pad comes when a figure is touched
  const [pad, setPad] = useState(false);
  const [into, setInto] = useState<'torque' | 'angle' | 'before'>(question.asks_angle ? 'angle' : 'torque');
  // the figure has the focus back after every answer
  useLayoutEffect(() => field.current?.focus(), [busy]);
  const gauges = useQuery(gaugesQuery).data ?? [];
  const address = gauges.find((one) => one.code === question.wrench)?.address;
  const [trace, setTrace] = useState<Schemas['KeptTrace'] | null>(null);
  const [flags, setFlags] = useState<string[]>([]);
  const fastener = question.fasteners.includes(draft.other) ? draft.other : question.fastener;
  const record = async (read: Partial<Draft> & { trace?: Schemas['KeptTrace'] } = {}) => {
    if (busy || question.blocked) return;
    const { trace: sent = trace, ...texts } = read;
    const now = { ...draft, ...texts };
    const entry: Schemas['Pull'] = {
      kind: 'pull',
      step: question.step,
      stage: question.stage,
      turn: question.turn,
      fastener,
      torque: now.torque.trim() ? { text: now.torque, unit: sent ? 'N·m' : unit } : null,
      angle: now.angle.trim() || null,
      before: now.before.trim() || null,
      angle_by: question.asks_angle && now.by_eye ? 'eye' : null,
      trace: sent,
      wrench: question.wrench ?? null,
      note: '',
    };
    const said = [now.torque && `${now.torque} ${sent ? 'N·m' : unit}`, now.angle && `${now.angle}°`].filter(Boolean);
    if ((await answer(said.join(' · ') || 'pulled', entry)) !== 'refused') forget();
    field.current?.focus();
  };
  /** What was read fills the fields that fingers fill. */
  const fill = (texts: Partial<Draft>, read: ReadPull | Schemas['TraceRead']) => {
    change(texts);
    setUnit('N·m');
    setTrace(read.trace);
    setFlags(read.flags);
  };
  const onPull = (pull: ReadPull, byItself: boolean) => {
    const texts = question.asks_angle
      ? { torque: pull.torque, angle: pull.angle, before: '' }
      : { torque: pull.torque, angle: '', before: pull.before };
    fill(texts, pull);
    if (byItself) void record({ ...texts, trace: pull.trace });
  };
  const onFile = (read: Schemas['TraceRead']) =>
    fill(
      question.asks_angle ? { torque: read.torque, angle: read.angle } : { torque: read.torque, before: read.snug },
      read,
    );
  const other = (by: number) => {
    const at = question.fasteners.indexOf(fastener);
    change({ other: question.fasteners[(at + by + question.fasteners.length) % question.fasteners.length] ?? '' });
  };
  const live = useLiveWrench({ code: address && question.wrench ? question.wrench : null, question, onPull });
  const nextUnit = () => setUnit(TORQUE_UNITS[(TORQUE_UNITS.indexOf(unit) + 1) % TORQUE_UNITS.length] ?? 'N·m');
  useKeys([
    { keys: ['Enter', ' ', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['ArrowRight'], label: 'another bolt', run: () => other(1) },
    { keys: ['ArrowLeft'], label: 'bolt before', run: () => other(-1) },
    { keys: ['n'], label: 'unit', run: nextUnit },
    { keys: ['e'], label: 'by eye', run: () => change({ by_eye: !draft.by_eye }) },
    { keys: ['p'], label: 'number pad', run: () => setPad(!pad) },
  ]);
  const figure = (name: 'torque' | 'angle' | 'before') => ({
    id: name,
    value: draft[name],
    ...figureField(touch, wrong),
    onFocus: () => setInto(name),
    onClick: () => touch && setPad(true),
    onChange: (event: { currentTarget: { value: string } }) => change({ [name]: event.currentTarget.value }),
  });
  // what is turned is the figure of an angle; what is pulled that of a torque
  const [first, second] = question.asks_angle ? (['angle', 'torque'] as const) : (['torque', 'before'] as const);
  return (
    <section className={`${input.input} ${classes.box}`} data-wrong={wrong !== null} aria-label="Pull">
      <div className={classes.pull} data-turned={question.asks_angle}>
        <div className={input.about}>
          {live.needle}
          <label htmlFor={first} hidden={live.needle !== null}>
            {question.asks_angle ? 'Turned, degrees' : 'Torque'}
          </label>
          <span
            className={fastener === question.fastener ? classes.hint : undefined}
            hidden={live.needle !== null && fastener === question.fastener}
          >
            {fastener === question.fastener
              ? question.asks_angle
                ? 'leave empty if it was turned as asked'
                : 'as the wrench showed it; leave empty if it has no scale'
              : `bolt ${fastener} instead of ${question.fastener}`}
          </span>
        </div>
        <input
          {...figure(first)}
          ref={field}
          className={`${input.figure} ${classes.first}`}
          placeholder={question.asks_angle ? String(question.target_deg ?? '') : ''}
        />
        <div className={`${input.length} ${classes.second}`}>
          <label htmlFor={second}>{question.asks_angle ? 'Torque at the end' : 'Degrees before it'}</label>
          <input {...figure(second)} />
        </div>
        <fieldset className={classes.units} aria-label="Unit">
          {TORQUE_UNITS.map((one) => (
            <UnstyledButton key={one} aria-pressed={one === unit} onClick={() => setUnit(one)}>
              {one}
            </UnstyledButton>
          ))}
        </fieldset>
      </div>
      <Wrong wrong={wrong} />
      {trace && (
        <p className={classes.traced} role="status">
          With its trace, {trace.read} readings.{flags.length > 0 && ` ${flags.join('; ')}.`}
        </p>
      )}
      {pad && <NumberPad value={draft[into]} onChange={(text) => change({ [into]: text.slice(0, 12) })} />}
      <div className={`${input.foot} ${classes.foot}`}>
        {question.asks_angle ? (
          <UnstyledButton
            className={classes.eye}
            aria-pressed={draft.by_eye || question.angle_by === 'eye'}
            onClick={() => change({ by_eye: !draft.by_eye })}
          >
            <b>E</b> {draft.by_eye || question.angle_by === 'eye' ? 'turned by eye, and recorded so' : 'turned by eye?'}
          </UnstyledButton>
        ) : (
          <span className={input.grow} />
        )}
        {live.switches ?? (
          <span className={input.card}>{question.wrench ? `wrench ${question.wrench}` : 'no wrench with a scale'}</span>
        )}
        {more.button}
        <Button size="lg" onClick={() => void record()} loading={busy} disabled={Boolean(question.blocked)}>
          {question.asks_angle ? 'Angle reached' : 'Pulled'}
        </Button>
      </div>
      {more.isOpen && (
        <>
          <div className={classes.more}>
            <TraceFile unit={unit} onRead={onFile} />
          </div>
          <MoreOfJoint {...props} wrong={null} />
        </>
      )}
    </section>
  );
}
