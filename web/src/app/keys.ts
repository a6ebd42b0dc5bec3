/** Keys for gloved hands: one listener a screen, letters work even while a figure is being typed. */
import { useEffect, useRef } from 'react';

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

function typesWords(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.dataset.figure !== undefined) return false;
  return target.matches('input, textarea, select') || target.isContentEditable;
}

/** Listens for these keys; not while words are typed or a dialog is open. */
export function useKeys(actions: KeyAction[]): void {
  const latest = useRef(actions);
  latest.current = actions;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (typesWords(event.target) || document.querySelector('[role="dialog"]')) return;
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const onButton = event.target instanceof HTMLElement && event.target.closest('button, a') !== null;
      if (onButton && (key === 'Enter' || key === ' ')) return;
      const action = latest.current.find(
        (one) => one.keys.includes(key) && (one.shift === undefined || one.shift === event.shiftKey),
      );
      if (!action) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
