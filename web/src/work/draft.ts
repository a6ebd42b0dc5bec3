/** What is being typed, kept on this machine until it is recorded, so that a reload loses nothing. */
import { useEffect, useState } from 'react';

/** State kept under a name; `null` forgets it. */
export function useDraft<T extends object>(name: string, empty: T): [T, (change: Partial<T>) => void, () => void] {
  const store = `gurvo.draft.${name}`;
  const [draft, setDraft] = useState<T>(() => read(store, empty));
  useEffect(() => {
    if (JSON.stringify(draft) === JSON.stringify(empty)) localStorage.removeItem(store);
    else localStorage.setItem(store, JSON.stringify(draft));
  }, [draft, empty, store]);
  const change = (part: Partial<T>) => setDraft((old) => ({ ...old, ...part }));
  return [draft, change, () => setDraft(empty)];
}

function read<T extends object>(store: string, empty: T): T {
  const text = localStorage.getItem(store);
  return text ? { ...empty, ...JSON.parse(text) } : empty;
}
