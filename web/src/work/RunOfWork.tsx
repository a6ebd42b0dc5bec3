/** The rod of stages at the bench, with the questions of the stage that is being worked on. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import classes from './RunOfWork.module.css';

export interface RunOfWorkProps {
  state: Schemas['BenchState'];
  current: string | undefined;
  waiting: string[];
  onChoose: (key: string) => void;
}

export function RunOfWork({ state, current, waiting, onChoose }: RunOfWorkProps) {
  return (
    <nav className={classes.run} aria-label="Run of work">
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
              <ul>
                {step.questions.map((question) => (
                  <li key={question.key}>
                    <UnstyledButton
                      className={classes.question}
                      data-status={question.status}
                      aria-current={question.key === current ? 'step' : undefined}
                      onClick={() => onChoose(question.key)}
                    >
                      {question.title}
                      <small>{mark(question, waiting)}</small>
                    </UnstyledButton>
                  </li>
                ))}
              </ul>
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

function mark(question: Schemas['Question'], waiting: string[]): string {
  if (waiting.includes(question.key)) return 'not yet sent';
  if (question.status === 'optional') return 'extra';
  return question.status === 'done' ? '✓' : '';
}
