/** What is being typed, kept on this machine until it is recorded, so that a reload loses nothing. */
import { useLocalStorage } from '@mantine/hooks';

type Change<T> = (change: Partial<T> | ((old: T) => Partial<T>)) => void;

/** State kept under a name; the last function forgets it. A storage that is full or damaged is as if nothing had been kept. */
export function useDraft<T extends object>(name: string, empty: T): [T, Change<T>, () => void] {
  const [draft, setDraft, forget] = useLocalStorage<T>({
    key: `gurvo.draft.${name}`,
    defaultValue: empty,
    getInitialValueInEffect: false,
    deserialize: (text) => ({ ...empty, ...groupIn(text) }),
  });
  const change: Change<T> = (part) =>
    setDraft((old) => ({ ...old, ...(typeof part === 'function' ? part(old) : part) }));
  return [draft, change, forget];
}

function groupIn(text: string | undefined): object {
  try {
    const kept: unknown = JSON.parse(text ?? '{}');
    return typeof kept === 'object' && kept !== null && !Array.isArray(kept) ? kept : {};
  } catch {
    return {};
  }
}
