/** What stands in the middle, and the strip of the keys that work in it. */
import type { ReactNode } from 'react';
import { KeyStrip } from '../app/KeyStrip';
import type { KeyAction } from '../app/keys';
import classes from './Writer.module.css';

interface ScreenProps {
  actions: KeyAction[];
  /** Whether it goes on below what is seen. */
  isLong?: boolean;
  children: ReactNode;
}

export function Screen({ actions, isLong = false, children }: ScreenProps) {
  return (
    <>
      <main className={classes.centre} data-long={isLong}>
        {children}
      </main>
      <div className={classes.keys}>
        <KeyStrip actions={actions} />
      </div>
    </>
  );
}
