/** The run of work as a check sheet, edited in place: words, why, minutes, moved, left out, added; what the book would forget at its line. */
import { UnstyledButton } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import type { KeyAction } from '../app/keys';
import { say } from '../app/saying';
import { useVoice } from '../app/voice';
import { AddStep } from './AddStep';
import type { Draft } from './api';
import { EditStep } from './EditStep';
import classes from './RunSheet.module.css';
import { Screen } from './Screen';
import type { Writing } from './writing';

type Step = Schemas['RunStep'];
type Stage = Schemas['RunStage'];

interface RunSheetProps {
  draft: Draft;
  writing: Writing;
  faults: { path: string; sentence: string }[];
  /** The bench at each step, as far as it was walked. */
  shots: Schemas['Shot'][];
  /** Opens every field of a step. */
  onAll: (at: string) => void;
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

type Doing = 'look' | 'edit' | 'add';

export function RunSheet({ draft, writing, faults, shots, onAll, common }: RunSheetProps) {
  const { run } = draft.view;
  const flat = run.flatMap((stage) => stage.steps.map((step) => ({ stage, step })));
  const [chosen, setChosen] = useState<string | null>(flat[0]?.step.at ?? null);
  const [doing, setDoing] = useState<Doing>('look');
  const [walking, setWalking] = useState(false);
  const n = Math.max(
    0,
    flat.findIndex((one) => one.step.at === chosen),
  );
  const here = flat[n];
  const may = draft.may_write;
  const look = () => setDoing('look');
  const choose = (by: number) => setChosen(flat[Math.max(0, Math.min(flat.length - 1, n + by))]?.step.at ?? null);
  const leaveOut = () => {
    if (!here) return;
    const next = flat[n + 1] ?? flat[n - 1];
    void writing.write({ does: 'remove', at: here.step.at }).then((after) => after && setChosen(next?.step.at ?? null));
  };
  const move = (by: number) => {
    if (!here) return;
    const edit = movedBy(here, run, by);
    if (!edit) return;
    void writing.write(edit.edit).then((after) => after && setChosen(edit.at));
  };
  const hold = () => {
    if (here) void writing.write({ does: 'set', at: `${here.step.at}/hold_point`, value: !here.step.hold_point });
  };
  const walk: KeyAction = { keys: ['w'], label: walking ? 'not walked' : 'walk it', run: () => setWalking(!walking) };
  const own = doing === 'look' ? [...keysOf({ may, choose, move, leaveOut, hold, setDoing }), walk] : [ESC(look)];
  return (
    <Screen actions={doing === 'look' ? [...own, ...common] : own} isLong>
      <div className={classes.sheet}>
        <h1>The run of work</h1>
        <p className={classes.hint}>
          Drafted from what is answered, in the order of the trade. Change what your book does otherwise: it stays when
          more is answered.
        </p>
        {writing.trouble && <p role="alert">{writing.trouble.sentence}</p>}
        {run.map((stage) => (
          <section key={stage.id} aria-label={stage.title}>
            <h2>{stage.title}</h2>
            <ol>
              {stage.steps.map((step) => {
                const isHere = step.at === here?.step.at;
                const wrong = faults.filter((one) => leadsTo(one.path, run, stage, step));
                return (
                  <Row
                    key={step.at}
                    step={step}
                    isHere={isHere}
                    isOpen={isHere && doing !== 'look'}
                    wrong={wrong.map((one) => one.sentence)}
                    onChoose={() => setChosen(step.at)}
                  >
                    {isHere && may && doing === 'look' && (
                      <div className={classes.tools}>
                        <UnstyledButton onClick={() => setDoing('edit')}>
                          <b>Enter</b> change
                        </UnstyledButton>
                        <UnstyledButton onClick={() => setDoing('add')}>
                          <b>A</b> add after
                        </UnstyledButton>
                        <UnstyledButton onClick={() => move(-1)}>
                          <b>⇧↑</b> up
                        </UnstyledButton>
                        <UnstyledButton onClick={() => move(1)}>
                          <b>⇧↓</b> down
                        </UnstyledButton>
                        <UnstyledButton onClick={hold}>
                          <b>H</b> {step.hold_point ? 'no hold point' : 'hold point'}
                        </UnstyledButton>
                        <UnstyledButton onClick={leaveOut}>
                          <b>X</b> leave out
                        </UnstyledButton>
                        <UnstyledButton onClick={() => setWalking(!walking)}>
                          <b>W</b> {walking ? 'not walked' : 'walk it to here'}
                        </UnstyledButton>
                      </div>
                    )}
                    {isHere && doing === 'look' && walking && (
                      <AtStep shot={shots.find((one) => one.step === step.id)} />
                    )}
                    {isHere && doing === 'edit' && (
                      <EditStep draft={draft} step={step} writing={writing} onDone={look} onAll={onAll} />
                    )}
                    {isHere && doing === 'add' && (
                      <AddStep
                        stage={stage}
                        after={step}
                        steps={flat.map((one) => one.step.id)}
                        addable={draft.view.addable}
                        writing={writing}
                        onDone={(at) => {
                          look();
                          if (at) setChosen(at);
                        }}
                      />
                    )}
                  </Row>
                );
              })}
            </ol>
          </section>
        ))}
        {flat.length === 0 && <p className={classes.hint}>There is no run yet.</p>}
      </div>
    </Screen>
  );
}

const ESC = (run: () => void): KeyAction => ({ keys: ['Escape'], label: 'back to the sheet', quiet: true, run });

interface SheetKeys {
  may: boolean;
  choose: (by: number) => void;
  move: (by: number) => void;
  leaveOut: () => void;
  hold: () => void;
  setDoing: (doing: Doing) => void;
}

function keysOf({ may, choose, move, leaveOut, hold, setDoing }: SheetKeys): KeyAction[] {
  const looking: KeyAction[] = [
    { keys: ['ArrowDown'], shift: false, shown: '↑ ↓', label: 'step', run: () => choose(1) },
    { keys: ['ArrowUp'], shift: false, label: 'step before', quiet: true, run: () => choose(-1) },
  ];
  if (!may) return looking;
  return [
    ...looking,
    { keys: ['ArrowDown'], shift: true, shown: '⇧ ↑ ↓', label: 'move', run: () => move(1) },
    { keys: ['ArrowUp'], shift: true, label: 'move up', quiet: true, run: () => move(-1) },
    { keys: ['Enter'], label: 'change', run: () => setDoing('edit') },
    { keys: ['a'], label: 'add after', run: () => setDoing('add') },
    { keys: ['h'], label: 'hold point', run: hold },
    { keys: ['x'], label: 'leave out', run: leaveOut },
  ];
}

/** The edit that moves a step by one place, into the stage beside where it is at the end of its own; and where it is then. */
function movedBy({ stage, step }: { stage: Stage; step: Step }, run: Stage[], by: number) {
  const n = stage.steps.findIndex((one) => one.id === step.id);
  const to = n + by;
  if (to >= 0 && to < stage.steps.length) {
    const after = by > 0 ? stage.steps[to]?.id : (stage.steps[to - 1]?.id ?? '');
    return { edit: { does: 'move' as const, at: step.at, after: after ?? '' }, at: step.at };
  }
  const beside = run[run.indexOf(stage) + by];
  if (!beside) return null;
  const after = by > 0 ? '' : (beside.steps.at(-1)?.id ?? '');
  const edit = { does: 'move' as const, at: step.at, to: `/stages/${beside.id}/steps`, after };
  return { edit, at: `/stages/${beside.id}/steps/${step.id}` };
}

function leadsTo(path: string, run: Stage[], stage: Stage, step: Step): boolean {
  return `${path}.`.startsWith(`stages.${run.indexOf(stage)}.steps.${stage.steps.indexOf(step)}.`);
}

/** How the bench will stand when the run has been gone through as far as a step. */
function AtStep({ shot }: { shot: Schemas['Shot'] | undefined }) {
  const voice = useVoice(null);
  if (!shot) return <p className={classes.why}>It was not come to: something before it holds it back.</p>;
  return (
    <div className={classes.shot} data-free={shot.free}>
      <p>
        <b>{shot.permission}</b> {shot.reasons.map((one) => say(one, voice)).join(' · ')}
      </p>
      {shot.asks.length > 0 && (
        <ul>
          {shot.asks.map((one) => (
            <li key={one}>{say(one, voice)}</li>
          ))}
        </ul>
      )}
      <p>
        {shot.loose_ends.length > 0
          ? `Left open by then: ${shot.loose_ends.map((one) => say(one, voice)).join(' · ')}`
          : 'Nothing is left open by then.'}
      </p>
    </div>
  );
}

/** Why, with what, and what must be so before: as the bench will say it. */
function About({ step }: { step: Step }) {
  const lines = [
    step.why,
    ...step.cautions.map((one) => `Caution: ${one}`),
    step.tools.length > 0 ? `At hand: ${step.tools.join(', ')}` : '',
    step.picture && `A picture is wanted: ${step.picture}`,
  ].filter(Boolean);
  if (lines.length === 0 && step.needs.length === 0) return null;
  return (
    <div className={classes.why}>
      {lines.map((one) => (
        <p key={one}>{one}</p>
      ))}
      {step.needs.length > 0 && (
        <p>
          {step.needs.map((need) => (
            <i key={need.words}>{need.words}</i>
          ))}
        </p>
      )}
    </div>
  );
}

interface RowProps {
  step: Step;
  isHere: boolean;
  isOpen: boolean;
  wrong: string[];
  onChoose: () => void;
  children: React.ReactNode;
}

function Row({ step, isHere, isOpen, wrong, onChoose, children }: RowProps) {
  const own = useRef<HTMLLIElement>(null);
  // a form that is opened in it is seen whole
  useEffect(() => {
    if (isHere) own.current?.scrollIntoView({ block: isOpen ? 'center' : 'nearest' });
  }, [isHere, isOpen]);
  return (
    <li ref={own} data-here={isHere} data-wrong={wrong.length > 0}>
      <UnstyledButton className={classes.row} aria-current={isHere ? 'step' : undefined} onClick={onChoose}>
        <b>{step.says}</b>
        <span>
          {step.by_lead && <em>the lead</em>}
          {step.hold_point && <em>hold point</em>}
          {step.covers && <em>covers</em>}
          {step.minutes !== null && <small>{step.minutes} min</small>}
        </span>
      </UnstyledButton>
      {wrong.map((sentence) => (
        <p key={sentence} className={classes.wrong}>
          {sentence}
        </p>
      ))}
      {isHere && <About step={step} />}
      {children}
    </li>
  );
}
