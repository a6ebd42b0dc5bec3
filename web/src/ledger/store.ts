/**
 * Where entries wait on this machine: IndexedDB, one row an entry. A storage that is full, refused or damaged is said, and what is
 * typed then lives as long as the page does.
 */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { EntryBody, Refusal } from './contract';

export interface Unsent {
  id: string;
  serial: string;
  by: string;
  at: string;
  /** Its place among what was typed on this machine, by its own count: a clock that is put right changes no order. */
  place?: number;
  question: string;
  title: string;
  value: string;
  entry: EntryBody;
  /** Of the entry's shape: what was typed before an update of Gurvo is read as it was meant then. */
  version: number;
  because?: string;
  /** How many entries were seen when it was typed: if another person made more since, both are told. */
  seen?: number;
  /** A picture that goes out before its entry, which then names it; how much of it has gone. */
  picture?: Blob;
  gone?: number;
  /** It was sent once and nobody answered; until then it is on its way and nothing is shown of it. */
  unanswered?: boolean;
  /** What the server said when it could not take it now, such as that its disk is full. */
  said?: string;
  refused?: Refusal;
}

interface Kept extends DBSchema {
  outbox: { key: string; value: Unsent; indexes: { at: string } };
}

const FIRST_STORE = 'gurvo.outbox';
const inMemory = new Map<string, Unsent>();
let opened: Promise<IDBPDatabase<Kept> | null> | undefined;
export let trouble = '';

function failed(error: unknown): null {
  const why = error instanceof Error ? error.message : String(error);
  trouble = `This browser keeps nothing (${why}). Do not leave the page while something is not yet sent.`;
  return null;
}

function database(): Promise<IDBPDatabase<Kept> | null> {
  opened ??= open().catch(failed);
  return opened;
}

async function open(): Promise<IDBPDatabase<Kept>> {
  const db = await openDB<Kept>('gurvo', 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('outbox', { keyPath: 'id' }).createIndex('at', 'at');
    },
  });
  await moveFirstStore(db);
  return db;
}

/** The first version kept its outbox as one text; what still waits there is taken over, whole rows only. */
async function moveFirstStore(db: IDBPDatabase<Kept>): Promise<void> {
  const text = localStorage.getItem(FIRST_STORE);
  if (text === null) return;
  for (const item of listIn(text)) await db.put('outbox', { ...item, version: 1, unanswered: true });
  localStorage.removeItem(FIRST_STORE);
}

function listIn(text: string): Unsent[] {
  try {
    const list: unknown = JSON.parse(text);
    return Array.isArray(list) ? list.filter((item) => typeof item?.id === 'string' && item.entry) : [];
  } catch {
    return [];
  }
}

/** Everything that waits, in the order it was typed. */
export async function allKept(): Promise<Unsent[]> {
  const db = await database();
  const kept = db ? await db.getAllFromIndex('outbox', 'at').catch(failed) : [];
  const rows = [...(kept ?? []), ...inMemory.values()];
  return rows.sort((a, b) => (a.place ?? 0) - (b.place ?? 0) || a.at.localeCompare(b.at));
}

/** The place of what is typed next: after everything that waits. */
export async function nextPlace(): Promise<number> {
  return 1 + Math.max(0, ...(await allKept()).map((item) => item.place ?? 0));
}

/** Keeps an entry, in memory if there is nowhere else. */
export async function keep(item: Unsent): Promise<void> {
  const db = await database();
  const stored = db && (await db.put('outbox', item).catch(failed));
  if (stored) inMemory.delete(item.id);
  else inMemory.set(item.id, item);
}

export async function forget(id: string): Promise<void> {
  inMemory.delete(id);
  const db = await database();
  await db?.delete('outbox', id).catch(failed);
}
