/** One question of the first run: how far it has come, the question, what it is for, and the way on, back and past. */
import { Button } from '@mantine/core';
import { type FormEvent, type ReactNode, useEffect, useRef } from 'react';
import { Mark } from '../app/Mark';
import { Rim } from '../shop/Rim';
import door from '../shop/SignIn.module.css';
import classes from './First.module.css';

export interface Way {
  number: number;
  of: number;
  back?: () => void;
  /** Goes past without an answer; what it asks can be said later. */
  past?: () => void;
}

interface AskedProps {
  way: Way;
  question: string;
  hint: string;
  on: string;
  ready?: boolean;
  pending?: boolean;
  wrong?: string | undefined;
  onGo: () => void;
  children: ReactNode;
}

export function Asked({ way, question, hint, on, ready = true, pending = false, wrong, onGo, children }: AskedProps) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (ready && !pending) onGo();
  };
  const form = useRef<HTMLFormElement>(null);
  // whatever comes late, the first field takes what is typed, unless something of this question has it
  useEffect(() => {
    if (!form.current?.contains(document.activeElement)) form.current?.querySelector('input')?.focus();
  });
  return (
    <main className={door.page}>
      <form ref={form} className={`${door.sheet} ${classes.sheet}`} onSubmit={submit}>
        <div className={classes.head}>
          <Mark />
          <span className={classes.beads} role="img" aria-label={`Question ${way.number} of ${way.of}`}>
            {Array.from({ length: way.of }, (_, n) => n + 1).map((n) => (
              <i key={n} data-done={n < way.number} data-now={n === way.number} />
            ))}
          </span>
        </div>
        <h1>{question}</h1>
        <p className={classes.hint}>{hint}</p>
        {children}
        {wrong && (
          <p className={classes.wrong} role="alert">
            {wrong}
          </p>
        )}
        <div className={classes.ways}>
          <Button type="submit" size="lg" loading={pending} disabled={!ready}>
            {on}
          </Button>
          {way.past && (
            <Button variant="default" size="lg" onClick={way.past}>
              Later
            </Button>
          )}
          {way.back && (
            <Button variant="default" size="lg" onClick={way.back}>
              Back
            </Button>
          )}
        </div>
      </form>
      <Rim />
    </main>
  );
}
