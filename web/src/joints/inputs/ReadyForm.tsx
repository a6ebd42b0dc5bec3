/** What is looked at before the first pull: threads as the figure presumes, held against the wrench, the wrench itself, how an angle is read. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { gaugesQuery } from '../../shop/api';
import { torqueIn, useTorqueUnit } from '../torque';
import classes from './joints.module.css';
import { MoreOfJoint, useMore } from './MoreOfJoint';

type Ready = Schemas['JointReady'];
type Gauge = Schemas['GaugeOut'];

type Threads = NonNullable<Ready['threads']>;
const THREADS: Threads[] = ['dry', 'oiled', 'moly', 'assembly lube', 'threadlocker', 'sealant', 'anti-seize'];
const ANGLES: { value: NonNullable<Ready['angle_by']>; label: string; note: string }[] = [
  { value: 'gauge', label: 'angle gauge', note: '' },
  { value: 'wrench', label: 'the wrench', note: '' },
  { value: 'wheel', label: 'degree wheel', note: '' },
  { value: 'paint', label: 'paint marks', note: '' },
  { value: 'eye', label: 'by eye', note: 'recorded so' },
];

interface Draft {
  threads: Threads | '';
  held: boolean;
  wrench: string;
  angle_by: NonNullable<Ready['angle_by']> | '';
  lever: string;
  extension: string;
  at: string;
  extends: boolean;
  /** Of a joint of one bolt: what its pulls came to, by their keys. */
  torques: Record<string, string>;
  angles: Record<string, string>;
}
const EMPTY: Draft = {
  threads: '',
  held: false,
  wrench: '',
  angle_by: '',
  lever: '',
  extension: '',
  at: '0',
  extends: false,
  torques: {},
  angles: {},
};

export function ReadyForm(props: InputProps<QuestionOf<'joint_ready'>>) {
  const { bench, question, wrong, busy, answer } = props;
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const gauges = useQuery(gaugesQuery).data ?? [];
  const wrenches = gauges.filter((gauge) => gauge.kind === 'wrench' || gauge.kind === 'bar');
  const needed = Number(torqueIn(question.needs_torque, 'N·m')) || null;
  const fits = (gauge: Gauge) =>
    needed === null || ((gauge.most ?? Number.POSITIVE_INFINITY) >= needed && (gauge.least ?? 0) <= needed);
  // what fits comes first, a wrench before a bar, the smaller before the larger
  const rank = (gauge: Gauge) =>
    Number(!fits(gauge) || gauge.overdue) * 1e6 + Number(gauge.kind === 'bar') * 1e5 + (gauge.most ?? 1e4);
  const offered = [...wrenches].sort((a, b) => rank(a) - rank(b));
  const wrench =
    draft.wrench || (needed !== null ? (offered.find((one) => fits(one) && !one.overdue)?.code ?? '') : '');
  // how they are left is looked at, so nothing is preselected; the first key takes what the book has
  const { threads } = draft;
  const [unit] = useTorqueUnit();
  const measured = question.pulls.filter((one) => one.asks_torque);
  const angleBy = draft.angle_by || (wrenches.find((one) => one.code === wrench)?.address ? 'wrench' : 'gauge');
  const more = useMore();
  const figure = useRef<HTMLInputElement>(null);
  const isOpen = question.status !== 'done' && !question.blocked;
  const record = async () => {
    if (busy || !isOpen) return;
    const number = (text: string) => Number(text.replace(',', '.'));
    const entry: Ready = {
      kind: 'joint_ready',
      step: question.step,
      threads: threads || null,
      held: draft.held && Boolean(question.held_by),
      wrench: wrench && wrench !== 'none' ? wrench : null,
      angle_by: question.needs_angle ? angleBy : null,
      lever_mm: draft.extends && draft.lever ? number(draft.lever) : null,
      extension_mm: draft.extends && draft.extension ? number(draft.extension) : null,
      extension_deg: draft.extends ? number(draft.at || '0') : 0,
      pulls: question.pulls.map((one) => ({
        stage: one.stage,
        turn: one.turn,
        torque: draft.torques[one.key]?.trim() ? { text: draft.torques[one.key] ?? '', unit } : null,
        angle: draft.angles[one.key]?.trim() || null,
      })),
    };
    if ((await answer([threads, wrench].filter(Boolean).join(', '), entry)) !== 'refused') forget();
  };
  useKeys([
    ...wrenches.slice(0, 9).map((gauge, n) => ({
      keys: [String(n + 1)],
      label: gauge.code,
      run: () => change({ wrench: gauge.code }),
    })),
    { keys: ['0'], label: 'no scale', run: () => change({ wrench: 'none' }) },
    {
      keys: ['t'],
      label: 'threads',
      run: () => {
        change({ threads: threads === '' && question.threads ? question.threads : after(THREADS, threads as Threads) });
        figure.current?.focus(); // letters are heard there too
      },
    },
    { keys: ['x'], label: 'held', run: () => change({ held: !draft.held }) },
    {
      keys: ['a'],
      label: 'how the angle is read',
      run: () =>
        change({
          angle_by: after(
            ANGLES.map((one) => one.value),
            angleBy,
          ),
        }),
    },
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  if (question.status === 'done') return <MoreOfJoint {...props} />;
  if (question.blocked)
    return (
      <section className={input.input} aria-label="Not yet">
        <div className={input.confirm}>Not yet: {question.blocked}.</div>
      </section>
    );
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Before the first pull">
      <div className={classes.ready}>
        <fieldset className={question.needs_angle ? undefined : classes.wide}>
          <legend>Threads and heads (T)</legend>
          <div className={classes.options}>
            {THREADS.map((one) => (
              <UnstyledButton key={one} aria-pressed={one === threads} onClick={() => change({ threads: one })}>
                {one}
                {one === question.threads && <small>the book</small>}
              </UnstyledButton>
            ))}
          </div>
        </fieldset>
        {question.needs_angle && (
          <fieldset>
            <legend>The angle is read by (A)</legend>
            <div className={classes.options}>
              {ANGLES.map((one) => (
                <UnstyledButton
                  key={one.value}
                  aria-pressed={one.value === angleBy}
                  onClick={() => change({ angle_by: one.value })}
                >
                  {one.label}
                  {one.note && <small>{one.note}</small>}
                </UnstyledButton>
              ))}
            </div>
          </fieldset>
        )}
        <fieldset className={classes.wide}>
          <legend>Wrench{needed !== null && `, for ${needed} N·m`}</legend>
          <div className={classes.options}>
            {offered.map((gauge) => (
              <UnstyledButton
                key={gauge.code}
                aria-pressed={gauge.code === wrench}
                onClick={() => change({ wrench: gauge.code })}
              >
                {/* its number is the shop's, whatever comes first here */}
                <i>{wrenches.indexOf(gauge) + 1}</i>
                {gauge.code}
                <small>
                  {gauge.least ?? 0} to {gauge.most ?? 'any'}
                  {gauge.overdue ? ', overdue' : ''}
                </small>
              </UnstyledButton>
            ))}
            <UnstyledButton aria-pressed={draft.wrench === 'none'} onClick={() => change({ wrench: 'none' })}>
              <i>0</i>
              none with a scale
            </UnstyledButton>
            <UnstyledButton aria-pressed={draft.extends} onClick={() => change({ extends: !draft.extends })}>
              extension
            </UnstyledButton>
          </div>
        </fieldset>
        {draft.extends && (
          <div className={`${classes.extension} ${classes.wide}`}>
            {(
              [
                ['lever', 'Lever, mm'],
                ['extension', 'Extension, mm'],
                ['at', 'At, degrees'],
              ] as const
            ).map(([key, label]) => (
              <TextInput
                key={key}
                label={label}
                inputMode="decimal"
                value={draft[key]}
                onChange={(event) => change({ [key]: event.currentTarget.value.slice(0, 8) })}
              />
            ))}
          </div>
        )}
      </div>
      {measured.map((one, n) => (
        <fieldset key={one.key} className={classes.once} aria-label={one.ask}>
          <b>{one.ask}</b>
          {one.asks_angle && (
            <label>
              turned, °{' '}
              <input
                ref={n === 0 ? figure : undefined}
                data-figure=""
                inputMode="decimal"
                placeholder={String(one.target_deg ?? '')}
                value={draft.angles[one.key] ?? ''}
                onChange={(event) =>
                  change({ angles: { ...draft.angles, [one.key]: event.currentTarget.value.slice(0, 8) } })
                }
              />
            </label>
          )}
          <label>
            {one.asks_angle ? 'torque at the end' : 'torque shown'}, {unit}{' '}
            <input
              ref={n === 0 && !one.asks_angle ? figure : undefined}
              data-figure=""
              inputMode="decimal"
              value={draft.torques[one.key] ?? ''}
              onChange={(event) =>
                change({ torques: { ...draft.torques, [one.key]: event.currentTarget.value.slice(0, 8) } })
              }
            />
          </label>
        </fieldset>
      ))}
      <div className={input.foot}>
        {question.held_by ? (
          <UnstyledButton
            className={input.turned}
            aria-pressed={draft.held}
            data-back={!draft.held}
            onClick={() => change({ held: !draft.held })}
          >
            <b>X</b>{' '}
            {draft.held ? `${question.held_by} holds against the wrench` : `Does ${question.held_by} hold? Press X`}
          </UnstyledButton>
        ) : (
          <span className={input.grow} />
        )}
        {more.button}
        <Button size="lg" onClick={record} loading={busy}>
          {question.pulls.length > 0 ? 'Looked at and pulled' : 'Ready to pull'}
        </Button>
      </div>
      <Wrong wrong={wrong} />
      {more.isOpen && <MoreOfJoint {...props} wrong={null} />}
    </section>
  );
}

function after<T>(all: T[], now: T): T {
  return all[(all.indexOf(now) + 1) % all.length] ?? now;
}
