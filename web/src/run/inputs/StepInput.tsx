/** A step to be done: one key where that is all there is to say; its counts, figures and choices where there is more. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { useLayoutEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { later } from '../../app/later';
import { say, type Voice } from '../../app/saying';
import { Confirm } from '../../ledger/Confirm';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Undo } from '../../ledger/Undo';
import { Wrong } from '../../ledger/Wrong';
import { AllAtOnce, AllMeet, allSaid, anyOff, entered, Looks, LooksSaid, type Said, useLookKeys } from './Looks';
import classes from './StepInput.module.css';

type Props = InputProps<QuestionOf<'step_done'>>;

const Besides = later<Props>(async () => (await import('../parts')).Besides);
type Field = Schemas['AskedField'];

export function StepInput(props: Props) {
  const { question } = props;
  if (question.status === 'done') return <Undo {...props} />;
  if (question.blocked) return <Blocked {...props} />;
  return (
    <>
      {question.fields.length + question.looks.length === 0 ? <JustDone {...props} /> : <Asked {...props} />}
      <Besides {...props} />
    </>
  );
}

function Blocked(props: Props) {
  return (
    <>
      <section className={input.input} aria-label="Not yet">
        <p className={classes.blocked}>Not yet: {props.question.blocked}.</p>
      </section>
      <Undo {...props} />
    </>
  );
}

function JustDone(props: Props) {
  const { question } = props;
  const minutes = question.minutes ? `About ${Math.round(question.minutes)} min.` : 'Record it when it is done.';
  return (
    <Confirm
      {...props}
      what={minutes}
      button={question.button}
      entry={{ kind: 'step_done', step: question.step, answers: {}, looks: [], note: '' }}
    />
  );
}

interface Draft {
  answers: Record<string, string>;
  looks: Said;
}

const EMPTY: Draft = { answers: {}, looks: {} };

function Asked({ bench, question, voice, wrong, busy, answer }: Props) {
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const [at, setAt] = useState(0);
  const [open, setOpen] = useState(false);
  const { fields } = question;
  const answers = Object.fromEntries(
    Object.entries(draft.answers).filter(([key]) => fields.some((f) => f.key === key)),
  );
  const { looks } = question;
  const looked = allSaid(looks, draft.looks);
  const asksLittle = question.does === 'as_found'; // whatever is seen is told; nothing of it must be
  const isAnySaid = looks.length > 0 || fields.some((field) => answers[field.key]);
  const whole = looked && fields.every((field) => !field.needed || answers[field.key]) && (!asksLittle || isAnySaid);
  // two taps may come before the first of them is drawn
  const set = (key: string, value: string) => change((old) => ({ answers: { ...old.answers, [key]: value } }));
  // on to the next that has to be said; what may be added is there for whoever wants it. Where nothing must be, to the next of all
  const goOn = (field: Field | undefined) => {
    const from = field ? fields.indexOf(field) : -1;
    const next = fields.findIndex((one, n) => n > from && (one.needed || asksLittle) && !answers[one.key]);
    if (next >= 0) setAt(next);
  };
  const choose = (field: Field, value: string) => {
    set(field.key, value);
    goOn(field);
  };
  const record = async () => {
    if (busy || !whole) return;
    const entry = {
      kind: 'step_done' as const,
      step: question.step,
      answers,
      looks: entered(looks, draft.looks),
      note: '',
    };
    const said = fields.map((field) => saidOf(field, answers[field.key])).filter(Boolean);
    if ((await answer(said.slice(0, 3).join(', '), entry)) !== 'refused') forget();
  };
  // parts that are all here, stages that were all gone through: one key, which still is not preselected
  const sameForAll = fields.filter(
    (field) => field.kind === 'choice' && (question.does === 'ready' || field.key.startsWith('stage.')),
  );
  const sayAll = () =>
    change({
      answers: {
        ...answers,
        ...Object.fromEntries(sameForAll.map((field) => [field.key, field.options?.[0]?.value ?? ''])),
      },
    });
  const isFolded = looks.length > 0 && looked && !open && fields.length > 0 && !anyOff(draft.looks);
  const lookAt = useLookKeys(looks, draft.looks, (said) => change({ looks: said }), !looked);
  const current = looked ? fields[at] : undefined;
  const onEnter = () => (whole ? void record() : looked && goOn(current));
  const digits =
    current?.kind === 'choice'
      ? current.options.map((option, n) => ({
          keys: [String(n + 1)],
          label: option.label,
          run: () => choose(current, option.value),
        }))
      : [];
  useKeys([
    ...(looked && sameForAll.length > 1 ? [{ keys: ['0'], label: allWords(question.does), run: sayAll }] : []),
    ...digits,
    { keys: ['Enter', 'PageDown'], label: 'record', run: onEnter },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      {isFolded && <LooksSaid looks={looks} said={draft.looks} onOpen={() => setOpen(true)} />}
      {looks.length > 0 && !isFolded && (
        <Looks
          looks={looks}
          said={draft.looks}
          at={looked ? -1 : lookAt}
          voice={voice}
          wrongAt={wrong?.field ?? ''}
          onSay={(said) => change({ looks: said })}
        />
      )}
      <div className={classes.fields} data-paired={fields.filter((field) => field.kind === 'figure').length > 1}>
        {fields.map((field, n) => (
          <FieldRow
            key={field.key}
            field={field}
            value={answers[field.key] ?? ''}
            isCurrent={looked && n === at}
            wrong={wrong?.field === `entry.answers.${field.key}`}
            voice={voice}
            onCurrent={() => setAt(n)}
            onChoose={(value) => choose(field, value)}
            onType={(value) => set(field.key, value)}
            onEnter={onEnter}
          />
        ))}
      </div>
      <div className={input.foot}>
        <span className={input.grow}>
          {anyOff(draft.looks)
            ? 'What is off is put right before it is recorded.'
            : asksLittle
              ? 'What is left empty was not looked at.'
              : whole
                ? 'Everything is said.'
                : 'Each has to be said.'}
        </span>
        {looked && !whole && sameForAll.length > 1 && <AllAtOnce words={allWords(question.does)} onSay={sayAll} />}
        {!looked && <AllMeet looks={looks} onSay={(said) => change({ looks: said })} />}
        <Button size="lg" onClick={record} loading={busy} disabled={!whole}>
          {question.button}
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}

const allWords = (does: string) => (does === 'ready' ? 'all here' : 'all done');

function saidOf(field: Field, value: string | undefined): string {
  if (!value) return '';
  return field.options?.find((option) => option.value === value)?.label ?? `${value} ${field.unit ?? ''}`.trim();
}

interface FieldRowProps {
  field: Field;
  value: string;
  isCurrent: boolean;
  wrong: boolean;
  voice: Voice;
  onCurrent: () => void;
  onChoose: (value: string) => void;
  onType: (value: string) => void;
  onEnter: () => void;
}

function FieldRow({ field, value, isCurrent, wrong, voice, onCurrent, onChoose, onType, onEnter }: FieldRowProps) {
  const typed = useRef<HTMLInputElement>(null);
  const offered = useRef<HTMLFieldSetElement>(null);
  useLayoutEffect(() => {
    // a choice has the focus as a whole: digits answer it, Enter records, and Tab goes on from here
    if (isCurrent) (field.kind === 'choice' ? offered : typed).current?.focus();
  }, [isCurrent, field.kind]);
  const name = say(field.label, voice);
  return (
    <div className={classes.field} data-current={isCurrent} data-wrong={wrong}>
      <span>
        {name}
        {field.hint && <small>{say(field.hint, voice)}</small>}
      </span>
      {field.kind === 'choice' ? (
        <fieldset ref={offered} tabIndex={-1} className={classes.options} aria-label={name}>
          {(field.options ?? []).map((option, n) => (
            <UnstyledButton
              key={option.value}
              aria-pressed={option.value === value}
              title={option.detail}
              onClick={(event) => {
                if (event.detail > 0) event.currentTarget.blur(); // after a click Enter records; it does not choose again
                onChoose(option.value);
              }}
            >
              {isCurrent && <i>{n + 1}</i>}
              {option.label}
            </UnstyledButton>
          ))}
        </fieldset>
      ) : (
        <TextInput
          ref={typed}
          aria-label={name}
          inputMode={field.kind === 'figure' ? 'decimal' : 'text'}
          data-figure={field.kind === 'figure' ? true : undefined}
          rightSection={field.unit ? <small>{field.unit}</small> : undefined}
          rightSectionWidth={60}
          value={value}
          onFocus={onCurrent}
          onKeyDown={(event) => {
            // a figure's Enter is heard by the keys of the screen
            if (event.key === 'Enter' && field.kind === 'words') onEnter();
          }}
          onChange={(event) => onType(event.currentTarget.value.slice(0, 120))}
          description={
            field.most != null && (
              <progress className={classes.stroke} max={field.most} value={Number(value.replace(',', '.')) || 0} />
            )
          }
          inputWrapperOrder={['input', 'description']}
        />
      )}
    </div>
  );
}
