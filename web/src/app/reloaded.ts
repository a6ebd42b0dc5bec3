/** What an open bench had, carried over a reload while the server is away: in this tab's own storage, taken out as soon as it is read. */
import type { QueryClient, QueryKey } from '@tanstack/react-query';
import { NoAnswer, type Schemas } from '../api/client';

const NAME = 'gurvo.reloaded';
const CARRIED = ['session', 'gauges', 'bench'];

/** By query key: what this page began with, used while nobody answers. */
const had = new Map<string, unknown>(taken());
/** Query keys of which nothing else has come yet. */
const asBefore = new Set<string>();

function taken(): [string, unknown][] {
  try {
    const text = sessionStorage.getItem(NAME);
    sessionStorage.removeItem(NAME);
    const kept: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(kept) ? kept : [];
  } catch {
    return []; // a storage that is shut or damaged is as if nothing had been kept
  }
}

/** Leaves behind what is open when the page goes, if somebody is there. */
export function carryOverReload(queries: QueryClient): void {
  addEventListener('pagehide', () => {
    const session = queries.getQueryData<Schemas['Session']>(['session']);
    if (!session?.person || session.left_alone) return;
    const open = queries.getQueryCache().findAll({
      predicate: (query) =>
        CARRIED.includes(String(query.queryKey[0])) && query.isActive() && query.state.data !== undefined,
    });
    try {
      sessionStorage.setItem(NAME, JSON.stringify(open.map((one) => [JSON.stringify(one.queryKey), one.state.data])));
    } catch {
      // too much, or a storage that is shut: after a reload nothing is shown until the server is back, and nothing typed is lost
    }
  });
}

/** The server's answer; while nobody answers, what the page had before it was loaded anew. */
export async function orAsBefore<T>(queryKey: QueryKey, ask: () => Promise<T>): Promise<T> {
  const key = JSON.stringify(queryKey);
  try {
    const answer = await ask();
    had.delete(key);
    asBefore.delete(key);
    return answer;
  } catch (error) {
    if (!(error instanceof NoAnswer) || !had.has(key)) throw error;
    asBefore.add(key);
    return had.get(key) as T;
  }
}

/** Whether what a query shows is only what was there before the page was loaded anew. */
export function isAsBefore(queryKey: QueryKey): boolean {
  return asBefore.has(JSON.stringify(queryKey));
}
