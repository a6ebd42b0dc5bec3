/** What is described, section by section; of the one that is open every question, with what is answered ticked. */
import { UnstyledButton } from '@mantine/core';
import { useEffect, useRef } from 'react';
import type { Asked, Draft } from './api';
import classes from './Rail.module.css';

interface RailProps {
  draft: Draft;
  shown: string;
  onChoose: (key: string) => void;
}

const SIGN: Record<Asked['status'], string> = { answered: '✓', 'not known': '–', open: '', 'does not fit': '!' };

export function Rail({ draft, shown, onChoose }: RailProps) {
  const current = useRef<HTMLElement>(null);
  useEffect(() => {
    current.current?.querySelector(`[data-key="${shown}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [shown]);
  const { sections, questions, run } = draft.view;
  const here = questions.find((one) => one.key === shown)?.section;
  const steps = run.reduce((sum, stage) => sum + stage.steps.length, 0);
  return (
    <nav ref={current} className={classes.rail} aria-label="What is described">
      <h2>Describe</h2>
      <ul>
        {sections.map((section) => {
          const own = questions.filter((one) => one.section === section.id);
          const begin = own.find((one) => one.status === 'open') ?? own[0];
          const isHere = section.id === here;
          return (
            <li key={section.id} data-here={isHere}>
              <UnstyledButton className={classes.section} onClick={() => begin && onChoose(begin.key)}>
                <i data-done={section.answered === section.of} data-begun={section.answered > 0} />
                {section.name}
                <small>
                  {section.answered} / {section.of}
                </small>
              </UnstyledButton>
              {isHere && (
                <ul className={classes.questions}>
                  {own.map((one) => (
                    <li key={one.key}>
                      <UnstyledButton
                        aria-current={one.key === shown ? 'step' : undefined}
                        data-status={one.status}
                        data-key={one.key}
                        onClick={() => onChoose(one.key)}
                      >
                        {one.about}
                        <span>{SIGN[one.status]}</span>
                      </UnstyledButton>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          );
        })}
        <li data-here={shown === 'tables'}>
          <UnstyledButton className={classes.section} onClick={() => onChoose('tables')}>
            <i />
            Tables
            <small>pasted</small>
          </UnstyledButton>
        </li>
        <li data-here={shown === 'photo'}>
          <UnstyledButton className={classes.section} onClick={() => onChoose('photo')}>
            <i />
            Photo of the front
          </UnstyledButton>
        </li>
        <li data-here={shown === 'run'}>
          <UnstyledButton className={classes.section} onClick={() => onChoose('run')}>
            <i data-done={steps > 0} />
            Run of work
            <small>{steps} steps</small>
          </UnstyledButton>
        </li>
        <li data-here={shown.startsWith('fields')}>
          <UnstyledButton className={classes.section} onClick={() => onChoose('fields')}>
            <i />
            Every field
          </UnstyledButton>
        </li>
      </ul>
    </nav>
  );
}
