/**
 * Entries on their way to the ledger. Each is kept on this machine, under the id it will have for ever, before it is sent:
 * a lost answer, a reload or a killed server cannot lose it, and sending it twice stores it once. However many tabs are open, one
 * sends; an entry goes out under the name of who typed it, or waits for him.
 */
import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { askAgain, isNow } from '../api/again';
import { ApiProblem, client, unwrap } from '../api/client';
import { sessionQuery } from '../app/api';
import { madeId } from '../app/ids';
import { benchQuery } from './api';
import { benchAfter } from './change';
import type { EntryBody, Refusal } from './contract';
import { sendPicture } from './pictures';
import { allKept, forget, keep, nextPlace, trouble, type Unsent } from './store';

export type { Unsent } from './store';
export type Outcome = { kind: 'sent' } | { kind: 'kept' } | ({ kind: 'refused' } & Refusal);

const ENTRY_VERSION = 2;
const AGAIN_MS = 3_000;
const SENDER = 'gurvo.outbox.sender';
const watchers = new Set<() => void>();
const otherTabs = new BroadcastChannel('gurvo.outbox');
let items: Unsent[] = [];
let shown: { items: Unsent[]; trouble: string } = { items: [], trouble: '' };

async function look(): Promise<void> {
  items = await allKept();
  shown = { items: items.filter((item) => item.unanswered || item.refused), trouble };
  for (const tell of watchers) tell();
}

async function changed(): Promise<void> {
  await look();
  otherTabs.postMessage('changed');
}

otherTabs.onmessage = () => void look();
// what was on its way when the page was left has had no answer
void allKept()
  .then((left) => Promise.all(left.map((item) => keep({ ...item, unanswered: true }))))
  .then(look);

// a browser that keeps nothing loses what waits when the page goes: it asks first
window.addEventListener('beforeunload', (event) => {
  if (trouble && items.some((item) => !item.refused)) event.preventDefault();
});

function watch(tell: () => void): () => void {
  watchers.add(tell);
  return () => watchers.delete(tell);
}

/** Entries that could not be sent yet, or were refused later, oldest first; and whether this browser can keep them at all. */
export function useOutbox(): { items: Unsent[]; trouble: string } {
  return useSyncExternalStore(watch, () => shown);
}

/** Takes an entry out of the outbox unsent; only the person who typed it does that. */
export async function discard(id: string): Promise<void> {
  await forget(id);
  await changed();
}

async function mark(item: Unsent, how: Pick<Unsent, 'refused' | 'unanswered' | 'said'>): Promise<void> {
  await keep({ ...item, ...how });
  await changed();
}

/** An entry with a picture names it once that is kept; whatever comes between, nothing of it is sent twice. */
async function withPicture(item: Unsent): Promise<Unsent> {
  const { picture, ...rest } = item;
  if (!picture || item.entry.kind !== 'picture') return item;
  const kept = await sendPicture(item.id, picture, async (gone) => {
    await keep({ ...item, gone });
    await changed();
  });
  const named = { ...rest, entry: { ...item.entry, ...kept } };
  await keep(named);
  return named;
}

async function send(waiting: Unsent, queries: QueryClient): Promise<void> {
  const item = await withPicture(waiting);
  const { id, entry, version, by, because } = item;
  const { queryKey } = benchQuery(item.serial);
  const had = queries.getQueryData(queryKey);
  const answer = await client.POST('/api/engines/{serial}/entries', {
    params: { path: { serial: item.serial } },
    body: {
      id,
      entry,
      version,
      by,
      because: because ?? '',
      typed_at: item.at,
      seen: item.seen ?? null,
      has: had?.tag ?? null,
    },
  });
  const bench = benchAfter(had, unwrap(answer));
  await forget(id);
  await changed();
  // a look that began before this entry must not end after it; what stands beside the bench has this entry in its key, and would never be asked again
  // last, so that nothing slow lies between what is seen and what follows from it
  isNow(queries, queryKey, (now) => (now && bench && now.entries > bench.entries ? now : bench));
}

/** Sends one; whether the next may follow. */
async function sendOne(item: Unsent, queries: QueryClient): Promise<boolean> {
  try {
    await send(item, queries);
    return true;
  } catch (error) {
    const problem = error instanceof ApiProblem ? error : null;
    const otherPerson = problem?.status === 401 || problem?.code === 'person';
    if (!problem || problem.status >= 500 || otherPerson) {
      // what the server itself says is wrong with it is shown; a door in front of it says nothing of use
      const said = problem && problem.code !== '' && !otherPerson ? problem.message : '';
      await mark(item, { unanswered: true, said });
      if (otherPerson) await askAgain(queries, { queryKey: sessionQuery.queryKey });
      return false;
    }
    const { message: sentence, field, wayOut } = problem;
    await mark(item, { refused: { sentence, field, wayOut } });
    return true;
  }
}

/** Sends what waits, in the order it was typed, one at a time; stops when nobody answers. */
async function flush(by: string, queries: QueryClient): Promise<void> {
  await alone(async () => {
    for (const item of (await allKept()).filter((one) => one.by === by && !one.refused)) {
      if (!(await sendOne(item, queries))) return;
    }
  });
}

let turn: Promise<void> = Promise.resolve();

/** One sender at a time among all tabs; where the browser has no locks (a tablet by plain http), one in this tab. */
function alone(work: () => Promise<void>): Promise<void> {
  const locked = async () => {
    if (navigator.locks) await navigator.locks.request(SENDER, work);
    else await work();
  };
  turn = turn.then(locked).catch(() => undefined);
  return turn;
}

/** Keeps trying to send what waits, as long as somebody is signed in. */
export function useSending(by: string | undefined): void {
  const queries = useQueryClient();
  const waiting = useOutbox().items.some((item) => !item.refused);
  useEffect(() => {
    if (!by || !waiting) return;
    const again = () => void flush(by, queries);
    const timer = setInterval(again, AGAIN_MS);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [by, waiting, queries]);
}

export type Record = (
  question: string,
  title: string,
  value: string,
  entry: EntryBody,
  because?: string,
  picture?: Blob,
) => Promise<Outcome>;

/** Records an entry: sent at once when the server answers, kept and sent later when not, handed back when refused. */
export function useRecord(serial: string, by: string): Record {
  const queries = useQueryClient();
  return async (question, title, value, entry, because = '', picture) => {
    const at = new Date().toISOString();
    const item: Unsent = {
      id: madeId(),
      serial,
      by,
      at,
      place: await nextPlace(),
      question,
      title,
      value,
      entry,
      because,
      version: ENTRY_VERSION,
      ...(picture ? { picture } : {}),
      ...seenOf(queries, serial),
    };
    await keep(item);
    await changed();
    await flush(by, queries);
    const left = items.find((one) => one.id === item.id);
    if (!left) return { kind: 'sent' };
    if (!left.refused) {
      await mark(left, { unanswered: true });
      return { kind: 'kept' };
    }
    await discard(item.id);
    return { kind: 'refused', ...left.refused };
  };
}

function seenOf(queries: QueryClient, serial: string): { seen?: number } {
  const bench = queries.getQueryData(benchQuery(serial).queryKey);
  return bench ? { seen: bench.entries } : {};
}
