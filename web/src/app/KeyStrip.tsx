/** The bottom strip names the keys that work now; `?` lists them all. On touch it gives way to the buttons themselves. */
import { Modal } from '@mantine/core';
import { type ReactNode, useState } from 'react';
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

interface KeyStripProps {
  actions: KeyAction[];
  /** What is meant by what is asked here, above the keys. */
  help?: ReactNode;
  /** Opened from elsewhere too, such as by a finger where no strip is shown. */
  asked?: { opened: boolean; set: (opened: boolean) => void };
}

export function KeyStrip({ actions, help, asked }: KeyStripProps) {
  const [own, setOwn] = useState(false);
  const all = asked?.opened ?? own;
  const setAll = asked?.set ?? setOwn;
  const label = help ? 'help, all keys' : 'all keys';
  useKeys([...actions, { keys: ['?'], label, run: () => setAll(true) }]);
  return (
    <>
      <footer className={classes.strip}>
        <div className={classes.keys}>
          {actions
            .filter((action) => !action.quiet)
            .map((action) => (
              <span key={action.label}>
                <b>{shown(action)}</b> {action.label}
              </span>
            ))}
        </div>
        <button type="button" className={classes.all} onClick={() => setAll(true)}>
          <b>?</b> {label}
        </button>
      </footer>
      <Modal
        opened={all}
        onClose={() => setAll(false)}
        title={help ? 'Help' : 'Keys that work here'}
        size={help ? 'xl' : 'md'}
      >
        {help}
        {help && <h3 className={classes.heading}>Keys that work here</h3>}
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
