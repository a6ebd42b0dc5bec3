/** The rod of stages at the bench, with the questions of the stage that is being worked on; of several cams only the one at hand is unfolded. */
import { UnstyledButton } from '@mantine/core';
import { useEffect, useRef } from 'react';
import type { Schemas } from '../api/client';
import { sayLeft } from '../app/saying';
import { sayReady } from '../app/times';
import type { Question } from '../ledger/contract';
import classes from './RunOfWork.module.css';

type Step = Schemas['Step'];

export interface RunOfWorkProps {
  engine: Schemas['EngineHead'];
  state: Schemas['BenchState'];
  current: string | undefined;
  waiting: string[];
  onChoose: (key: string) => void;
}

export function RunOfWork({ engine, state, current, waiting, onChoose }: RunOfWorkProps) {
  const nav = useRef<HTMLElement>(null);
  // the question that is asked stays in sight, however many there are
  useEffect(() => {
    if (current) nav.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [current]);
  return (
    <nav className={classes.run} aria-label="Run of work" ref={nav}>
      <h2>Run of work</h2>
      {state.run?.is_planned && engine.ready_at && (
        <p className={classes.left}>
          {sayLeft(state.run.left_minutes)}, done {sayReady(engine.ready_at)}
        </p>
      )}
      <ol>
        {byStage(state.steps).map((stage) => {
          const isOpen = stage.status === 'now' || stage.steps.some((step) => isAsked(step, current));
          return (
            <li key={stage.key} data-status={stage.status} data-planned={stage.isPlanned}>
              <StageHead stage={stage} isOpen={isOpen} onChoose={onChoose} />
              {isOpen && (
                <ul>
                  {stage.steps.map((step) => (
                    <Steps key={step.key} {...{ stage, step, current, waiting, onChoose }} />
                  ))}
                </ul>
              )}
              {!isOpen && stage.status === 'done' && !stage.isPlanned && firstOf(stage) && (
                <UnstyledButton className={classes.back} onClick={() => onChoose(firstOf(stage))}>
                  look again
                </UnstyledButton>
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

const isAsked = (step: Step, current: string | undefined) => step.questions.some((one) => one.key === current);

const firstOf = (stage: Stage) => stage.steps.flatMap((step) => step.questions)[0]?.key ?? '';

interface Stage {
  key: string;
  title: string;
  note: string;
  status: Step['status'];
  isPlanned: boolean;
  steps: Step[];
}

/** Steps of one stage stand together, with how many are done; where no run is planned each step is a stage of its own. */
function byStage(steps: Step[]): Stage[] {
  const stages: Stage[] = [];
  for (const step of steps) {
    const last = stages.at(-1);
    if (step.stage && last?.title === step.stage) last.steps.push(step);
    else
      stages.push({
        key: step.key,
        title: step.stage || step.title,
        note: step.note,
        status: step.status,
        isPlanned: step.stage !== '',
        steps: [step],
      });
  }
  for (const stage of stages.filter((one) => one.isPlanned)) {
    const done = stage.steps.filter((step) => step.status === 'done').length;
    stage.note = done === stage.steps.length ? '' : done === 0 ? '' : `${done} / ${stage.steps.length}`;
    const isNow = stage.steps.some((step) => step.status === 'now');
    stage.status = isNow ? 'now' : done === stage.steps.length ? 'done' : 'open';
  }
  return stages;
}

interface StageHeadProps extends Pick<RunOfWorkProps, 'onChoose'> {
  stage: Stage;
  isOpen: boolean;
}

/** A stage's bead and name; of a planned run it opens the stage, to look at it ahead of time or again. */
function StageHead({ stage, isOpen, onChoose }: StageHeadProps) {
  const parts = (
    <>
      <i aria-hidden="true" />
      <span>{stage.title}</span>
      <small>{stage.note}</small>
    </>
  );
  if (!stage.isPlanned) return <div className={classes.step}>{parts}</div>;
  return (
    <UnstyledButton className={classes.step} aria-expanded={isOpen} onClick={() => onChoose(firstOf(stage))}>
      {parts}
    </UnstyledButton>
  );
}

interface StepsProps extends Omit<RunOfWorkProps, 'state' | 'engine'> {
  stage: Stage;
  step: Step;
}

/** A step of a stage: one row where it asks one thing; what it asks one by one while it is the one at hand. */
function Steps({ stage, step, current, waiting, onChoose }: StepsProps) {
  const isOne = stage.isPlanned && (step.questions.length === 1 || !(step.status === 'now' || isAsked(step, current)));
  if (!isOne) return <Questions step={step} current={current} waiting={waiting} onChoose={onChoose} />;
  const first = step.questions.find((question) => question.status === 'open') ?? step.questions[0];
  const mark = first && waiting.includes(first.key) ? 'not yet sent' : step.status === 'done' ? '✓' : step.note;
  return (
    <li>
      <UnstyledButton
        className={classes.question}
        data-status={step.status === 'done' ? 'done' : first?.blocked ? 'optional' : 'open'}
        aria-current={isAsked(step, current) ? 'step' : undefined}
        onClick={() => first && onChoose(first.key)}
      >
        {step.title}
        <small>{mark}</small>
      </UnstyledButton>
    </li>
  );
}

interface QuestionsProps extends Omit<RunOfWorkProps, 'state' | 'engine'> {
  step: Step;
}

function Questions({ step, current, waiting, onChoose }: QuestionsProps) {
  const open = step.questions.find((question) => question.key === current)?.group;
  const groups = [...new Set(step.questions.map((question) => question.group ?? ''))];
  return (
    <>
      {groups.flatMap((group) => {
        const own = listed(step, current).filter((question) => (question.group ?? '') === group);
        const head = group === '' ? [] : [<GroupHead key={group} group={group} own={own} onChoose={onChoose} />];
        if (group !== '' && group !== open) return head;
        return [
          ...head,
          ...own.map((question) => (
            <li key={question.key}>
              <UnstyledButton
                className={classes.question}
                data-status={question.status}
                aria-current={question.key === current ? 'step' : undefined}
                onClick={() => onChoose(question.key)}
              >
                {group ? question.title.replace(`${group}, `, '') : question.title}
                <small>{mark(question, waiting)}</small>
              </UnstyledButton>
            </li>
          )),
        ];
      })}
    </>
  );
}

/** Of pulls one after the other the one at hand alone: the drawing shows the others. */
function listed(step: Step, current: string | undefined): Question[] {
  const pulls = step.questions.filter((question) => question.kind === 'pull');
  const shown = pulls.find((question) => question.key === current) ?? pulls[0];
  return step.questions.filter((question) => question.kind !== 'pull' || question === shown);
}

interface GroupHeadProps {
  group: string;
  own: Question[];
  onChoose: (key: string) => void;
}

/** A cam's name with how far it has come; pressing it goes to its first open question. */
function GroupHead({ group, own, onChoose }: GroupHeadProps) {
  const asked = own.filter((question) => question.status !== 'optional');
  const done = asked.filter((question) => question.status === 'done').length;
  const first = asked.find((question) => question.status === 'open') ?? own[0];
  return (
    <li>
      <UnstyledButton className={classes.group} onClick={() => first && onChoose(first.key)}>
        {group}
        <small>{done === asked.length ? '✓' : `${done} / ${asked.length}`}</small>
      </UnstyledButton>
    </li>
  );
}

function mark(question: Question, waiting: string[]): string {
  if (waiting.includes(question.key)) return 'not yet sent';
  if (question.status === 'optional') return 'extra';
  return question.status === 'done' ? '✓' : '';
}
