/** Keys for gloved hands: one listener a screen, letters work even while a figure is being typed. */
import { useLayoutEffect, useRef } from 'react';

export interface KeyAction {
  /** As `KeyboardEvent.key`, letters in lower case. */
  keys: string[];
  /** As shown in the strip; the first is shown when left out. */
  shown?: string;
  label: string;
  /** Only with Shift (true) or only without (false); either way when left out. */
  shift?: boolean | undefined;
  /** Kept out of the strip, only listed under `?`. */
  quiet?: boolean;
  run: () => void;
}

const isFigure = (target: EventTarget | null) =>
  target instanceof HTMLInputElement && target.dataset.figure !== undefined;

function typesWords(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.dataset.figure !== undefined) return false;
  return target.matches('input, textarea, select') || target.isContentEditable;
}

type Listener = { actions: KeyAction[] };

/** What listens now, the innermost last: it has the first word. */
const listeners: Listener[] = [];

const clashes = (a: KeyAction, b: KeyAction) =>
  a.keys.some((key) => b.keys.includes(key)) && (a.shift === undefined || b.shift === undefined || a.shift === b.shift);

/** Two meanings of one key on one screen are a defect: it is reported where tests and the console see it. */
function reportClashes(own: Listener): void {
  const others = listeners.filter((one) => one !== own).flatMap((one) => one.actions);
  for (const action of own.actions) {
    const other = others.find((one) => clashes(action, one));
    if (other) reportError(new Error(`The key ${action.keys.join(' ')} means “${action.label}” and “${other.label}”`));
  }
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
  if (typesWords(event.target) || document.querySelector('[role="dialog"]')) return;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  // a figure that is being typed has its digits, whatever they mean elsewhere on the screen
  if (isFigure(event.target) && /^[0-9.,]$/.test(key)) return;
  const onButton = event.target instanceof HTMLElement && event.target.closest('button, a') !== null;
  if (onButton && (key === 'Enter' || key === ' ')) return;
  for (const listener of [...listeners].reverse()) {
    const action = listener.actions.find(
      (one) => one.keys.includes(key) && (one.shift === undefined || one.shift === event.shiftKey),
    );
    if (!action) continue;
    event.preventDefault();
    action.run();
    return;
  }
  // a digit that means nothing else is the beginning of the figure that is asked for
  if (/^[0-9]$/.test(key) && event.target === document.body)
    document.querySelector<HTMLInputElement>('main input[data-figure]')?.focus();
}

/** Listens for these keys; not while words are typed or a dialog is open. */
export function useKeys(actions: KeyAction[]): void {
  const own = useRef<Listener>({ actions });
  own.current.actions = actions;
  // before anything is painted: a key pressed the moment a question is seen must be heard
  useLayoutEffect(() => {
    const listener = own.current;
    listeners.push(listener);
    if (listeners.length === 1) window.addEventListener('keydown', onKey);
    reportClashes(listener);
    return () => {
      listeners.splice(listeners.indexOf(listener), 1);
      if (listeners.length === 0) window.removeEventListener('keydown', onKey);
    };
  }, []);
}
