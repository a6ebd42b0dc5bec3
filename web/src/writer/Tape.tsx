/** What was written, newest first; the last can be undone, and done again. */
import { UnstyledButton } from '@mantine/core';
import type { Draft } from './api';
import classes from './Tape.module.css';
import type { Writing } from './writing';

interface TapeProps {
  draft: Draft;
  writing: Writing;
  onQuestion: (key: string) => void;
}

export function Tape({ draft, writing, onQuestion }: TapeProps) {
  const { tape } = draft.view;
  return (
    <section className={classes.tape} aria-label="Written">
      <header>
        <h2>Written · {draft.last}</h2>
        {draft.may_write && (
          <>
            <UnstyledButton disabled={!draft.can_redo} onClick={() => void writing.redo()}>
              <b>Y</b> again
            </UnstyledButton>
            <UnstyledButton disabled={!draft.can_undo} onClick={() => void writing.undo()}>
              <b>U</b> undo
            </UnstyledButton>
          </>
        )}
      </header>
      <ul>
        {tape.map((line) => (
          <li key={line.number} data-lost={line.lost !== ''}>
            {line.question ? (
              <UnstyledButton onClick={() => onQuestion(line.question ?? '')}>{line.what}</UnstyledButton>
            ) : (
              <span>{line.what}</span>
            )}
            <b>{line.said}</b>
            {line.lost && <em>not in it any more: {line.lost}</em>}
          </li>
        ))}
        {tape.length === 0 && <li>Nothing yet. Every answer is kept as you give it.</li>}
      </ul>
    </section>
  );
}
