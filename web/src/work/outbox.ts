/**
 * Entries on their way to the ledger. Each is kept on this machine, under the id it will have for ever, before it is sent:
 * a lost answer, a reload or a killed server cannot lose it, and sending it twice stores it once.
 */
import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { ApiProblem, client, type Schemas, unwrap } from '../api/client';
import { sessionQuery } from '../app/session';

export type EntryBody = Schemas['EntryIn']['entry'];

export interface Unsent {
  id: string;
  serial: string;
  by: string;
  at: string;
  question: string;
  title: string;
  value: string;
  entry: EntryBody;
  /** It was sent once and nobody answered; until then it is on its way and nothing is shown of it. */
  unanswered?: boolean;
  refused?: { sentence: string; field: string };
}

const STORE = 'gurvo.outbox';
const AGAIN_MS = 3_000;
const watchers = new Set<() => void>();
let text = localStorage.getItem(STORE) ?? '[]';
let items: Unsent[] = afterReload(JSON.parse(text));
let turn: Promise<void> = Promise.resolve();

/** What was on its way when the page was left has had no answer. */
function afterReload(left: Unsent[]): Unsent[] {
  return left.map((item) => ({ ...item, unanswered: true }));
}

function keep(next: Unsent[]): void {
  items = next;
  text = JSON.stringify(next);
  localStorage.setItem(STORE, text);
  for (const tell of watchers) tell();
}

function watch(tell: () => void): () => void {
  const elsewhere = (event: StorageEvent) => {
    if (event.key !== STORE) return;
    text = event.newValue ?? '[]';
    items = JSON.parse(text);
    tell();
  };
  watchers.add(tell);
  window.addEventListener('storage', elsewhere);
  return () => {
    watchers.delete(tell);
    window.removeEventListener('storage', elsewhere);
  };
}

/** Entries that could not be sent yet, or were refused later; oldest first. */
export function useUnsent(): Unsent[] {
  return useSyncExternalStore(watch, () => items).filter((item) => item.unanswered || item.refused);
}

/** Takes an entry out of the outbox unsent; only the person who typed it does that. */
export function discard(id: string): void {
  keep(items.filter((item) => item.id !== id));
}

function mark(id: string, how: Pick<Unsent, 'refused' | 'unanswered'>): void {
  keep(items.map((item) => (item.id === id ? { ...item, ...how } : item)));
}

async function sendOne(item: Unsent, queries: QueryClient): Promise<'on' | 'stop'> {
  try {
    const path = { serial: item.serial };
    const answer = await client.POST('/api/engines/{serial}/entries', {
      params: { path },
      body: { id: item.id, entry: item.entry, typed_at: item.at },
    });
    const bench = unwrap(answer);
    discard(item.id);
    queries.setQueryData(['bench', item.serial], bench);
    return 'on';
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status >= 500 || error.status === 401)
      mark(item.id, { unanswered: true });
    if (!(error instanceof ApiProblem) || error.status >= 500) return 'stop';
    if (error.status === 401) {
      await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
      return 'stop';
    }
    mark(item.id, { refused: { sentence: error.message, field: error.field } });
    return 'on';
  }
}

/** Sends what waits, in the order it was typed, one at a time; stops when nobody answers. */
function flush(by: string, queries: QueryClient): Promise<void> {
  turn = turn.then(async () => {
    for (const item of items.filter((one) => one.by === by && !one.refused)) {
      if ((await sendOne(item, queries)) === 'stop') return;
    }
  });
  return turn;
}

/** Keeps trying to send what waits, as long as somebody is signed in. */
export function useSending(by: string | undefined): void {
  const queries = useQueryClient();
  const waiting = useUnsent().some((item) => !item.refused);
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

export type Outcome = { kind: 'sent' } | { kind: 'kept' } | { kind: 'refused'; sentence: string; field: string };

/** Records an entry: sent at once when the server answers, kept and sent later when not, handed back when refused. */
export function useRecord(serial: string, by: string) {
  const queries = useQueryClient();
  return async (question: string, title: string, value: string, entry: EntryBody): Promise<Outcome> => {
    const item: Unsent = { id: newId(), serial, by, at: new Date().toISOString(), question, title, value, entry };
    keep([...items, item]);
    await flush(by, queries);
    const left = items.find((one) => one.id === item.id);
    if (!left) return { kind: 'sent' };
    if (!left.refused) {
      mark(item.id, { unanswered: true });
      return { kind: 'kept' };
    }
    discard(item.id);
    return { kind: 'refused', ...left.refused };
  };
}

/** `crypto.randomUUID` is there only on localhost and https; a shop's tablet may come by plain http. */
function newId(): string {
  if (window.isSecureContext) return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}
