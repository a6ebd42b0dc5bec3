/** The bottom strip names the keys that work now; `?` lists them all. On touch it gives way to the buttons themselves. */
import { Modal } from '@mantine/core';
import { useState } from 'react';
import classes from './KeyStrip.module.css';
import { type KeyAction, useKeys } from './keys';

const NAMES: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  ' ': 'Space',
  Escape: 'Esc',
};

export function KeyStrip({ actions }: { actions: KeyAction[] }) {
  const [all, setAll] = useState(false);
  useKeys([...actions, { keys: ['?'], label: 'all keys', run: () => setAll(true) }]);
  return (
    <>
      <footer className={classes.strip}>
        {actions
          .filter((action) => !action.quiet)
          .map((action) => (
            <span key={action.label}>
              <b>{shown(action)}</b> {action.label}
            </span>
          ))}
        <button type="button" className={classes.all} onClick={() => setAll(true)}>
          <b>?</b> all keys
        </button>
      </footer>
      <Modal opened={all} onClose={() => setAll(false)} title="Keys that work here">
        <dl className={classes.list}>
          {actions.map((action) => (
            <div key={action.label}>
              <dt>{shown(action)}</dt>
              <dd>{action.label}</dd>
            </div>
          ))}
          <div>
            <dt>Esc</dt>
            <dd>closes what is open</dd>
          </div>
        </dl>
      </Modal>
    </>
  );
}

function shown(action: KeyAction): string {
  const first = action.keys[0] ?? '';
  return action.shown ?? NAMES[first] ?? (first.length === 1 ? first.toUpperCase() : first);
}
