/** The rod of stages at the bench, with the questions of the stage that is being worked on; of several cams only the one at hand is unfolded. */
import { UnstyledButton } from '@mantine/core';
import { useEffect, useRef } from 'react';
import type { Schemas } from '../api/client';
import type { Question } from '../ledger/contract';
import classes from './RunOfWork.module.css';

type Step = Schemas['Step'];

export interface RunOfWorkProps {
  state: Schemas['BenchState'];
  current: string | undefined;
  waiting: string[];
  onChoose: (key: string) => void;
}

export function RunOfWork({ state, current, waiting, onChoose }: RunOfWorkProps) {
  const nav = useRef<HTMLElement>(null);
  // the question that is asked stays in sight, however many there are
  useEffect(() => {
    if (current) nav.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [current]);
  return (
    <nav className={classes.run} aria-label="Run of work" ref={nav}>
      <h2>Run of work</h2>
      <ol>
        {state.steps.map((step) => (
          <li key={step.key} data-status={step.status}>
            <div className={classes.step}>
              <i aria-hidden="true" />
              <span>{step.title}</span>
              <small>{step.note}</small>
            </div>
            {(step.status === 'now' || step.questions.some((question) => question.key === current)) && (
              <Questions step={step} current={current} waiting={waiting} onChoose={onChoose} />
            )}
            {step.status === 'done' && step.questions.length > 0 && !step.questions.some((q) => q.key === current) && (
              <UnstyledButton className={classes.back} onClick={() => onChoose(step.questions[0]?.key ?? '')}>
                look again
              </UnstyledButton>
            )}
          </li>
        ))}
      </ol>
    </nav>
  );
}

interface QuestionsProps extends Omit<RunOfWorkProps, 'state'> {
  step: Step;
}

function Questions({ step, current, waiting, onChoose }: QuestionsProps) {
  const open = step.questions.find((question) => question.key === current)?.group;
  const groups = [...new Set(step.questions.map((question) => question.group ?? ''))];
  return (
    <ul>
      {groups.flatMap((group) => {
        const own = step.questions.filter((question) => (question.group ?? '') === group);
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
    </ul>
  );
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
