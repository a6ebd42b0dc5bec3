/** Reads and changes of drafts; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions, useQueryClient } from '@tanstack/react-query';
import { askAgain } from '../api/again';
import { ApiProblem, client, type Schemas, unwrap } from '../api/client';

export type Draft = Schemas['DraftOut'];
export type Asked = Schemas['Asked'];
export type Edit = Schemas['EditIn']['edit'];

/** What the other lead writes is seen within so long. */
const LOOK_AGAIN_MS = 2_000;
const BUSY = 429;
const WALK_TRIES = 20;
const WALK_AGAIN_MS = 800;

export const draftsQuery = queryOptions({
  queryKey: ['drafts'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts', { signal })),
});

const at = (id: string) => ({ params: { path: { draft_id: id } } });

export const draftQuery = (id: string) =>
  queryOptions({
    queryKey: ['drafts', id],
    refetchInterval: LOOK_AGAIN_MS,
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts/{draft_id}', { ...at(id), signal })),
  });

/** Whether it can be built by; asked anew whenever something is changed, what was known is shown meanwhile. */
export const standingQuery = (id: string, changes: number) =>
  queryOptions({
    queryKey: ['drafts', id, 'standing', changes],
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts/{draft_id}/standing', { ...at(id), signal })),
    placeholderData: keepPreviousData,
  });

export const walkQuery = (id: string, changes: number, isSound: boolean) =>
  queryOptions({
    queryKey: ['drafts', id, 'walk', changes],
    enabled: isSound,
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts/{draft_id}/walk', { ...at(id), signal })),
    // after many edits in a row others are ahead: it is asked again until it is walked
    retry: (count, error) => count < WALK_TRIES && (!(error instanceof ApiProblem) || error.status === BUSY),
    retryDelay: WALK_AGAIN_MS,
    placeholderData: keepPreviousData,
  });

/** What the bench proposes to it. */
export const proposalsQuery = (id: string, changes: number) =>
  queryOptions({
    queryKey: ['drafts', id, 'proposals', changes],
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts/{draft_id}/proposals', { ...at(id), signal })),
    placeholderData: keepPreviousData,
  });

/** What a draft says, written out. */
export const documentQuery = (id: string, changes: number) =>
  queryOptions({
    queryKey: ['drafts', id, 'document', changes],
    queryFn: async ({ signal }) => {
      const answer = await client.GET('/api/drafts/{draft_id}/document.json', { ...at(id), signal, parseAs: 'text' });
      return unwrap(answer as { data?: string; error?: unknown; response: Response });
    },
    placeholderData: keepPreviousData,
  });

export async function beginDraft(body: Schemas['DraftIn']): Promise<Draft> {
  return unwrap(await client.POST('/api/drafts', { body }));
}

export const sendEdit = async (id: string, body: Schemas['EditIn']): Promise<Draft> =>
  unwrap(await client.POST('/api/drafts/{draft_id}/edits', { ...at(id), body }));

export const sendUndo = async (id: string): Promise<Draft> =>
  unwrap(await client.POST('/api/drafts/{draft_id}/undo', at(id)));

export const sendRedo = async (id: string): Promise<Draft> =>
  unwrap(await client.POST('/api/drafts/{draft_id}/redo', at(id)));

export const sendText = async (id: string, body: Schemas['TextIn']): Promise<Draft> =>
  unwrap(await client.PUT('/api/drafts/{draft_id}/document', { ...at(id), body }));

export const sendPhoto = async (id: string, body: Schemas['PhotoIn']): Promise<Draft> =>
  unwrap(await client.POST('/api/drafts/{draft_id}/photo', { ...at(id), body }));

/** Which places follow from what was pointed at on a photo. */
export const photoQuery = (id: string, changes: number, marks: Schemas['PhotoMarks']) =>
  queryOptions({
    queryKey: ['drafts', id, 'photo', changes, marks],
    queryFn: async ({ signal }) =>
      unwrap(
        await client.POST('/api/drafts/{draft_id}/photo/read', { ...at(id), body: { marks, made_on: 0 }, signal }),
      ),
    placeholderData: keepPreviousData,
  });

export const sendTable = async (id: string, body: Schemas['TableIn']): Promise<Draft> =>
  unwrap(await client.POST('/api/drafts/{draft_id}/table', { ...at(id), body }));

/** One place's form: by its pointer, or by the path that a fault names. */
export const formQuery = (id: string, changes: number, place: string) =>
  queryOptions({
    queryKey: ['drafts', id, 'form', place, changes],
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/drafts/{draft_id}/form', {
          params: { path: { draft_id: id }, query: { at: place } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** What a step may need before it is done. */
export const needsQuery = (id: string, changes: number) =>
  queryOptions({
    queryKey: ['drafts', id, 'needs', changes],
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/drafts/{draft_id}/needs', { ...at(id), signal })),
    placeholderData: keepPreviousData,
  });

export const sendPlace = async (id: string, body: Schemas['PlaceIn']): Promise<Draft> =>
  unwrap(await client.PUT('/api/drafts/{draft_id}/form', { ...at(id), body }));

/** What each row of a pasted table would become. */
export const rowsQuery = (id: string, changes: number, kind: Schemas['TableIn']['kind'], text: string) =>
  queryOptions({
    queryKey: ['drafts', id, 'table', changes, kind, text],
    enabled: text.trim() !== '',
    queryFn: async ({ signal }) =>
      unwrap(
        await client.POST('/api/drafts/{draft_id}/table/read', {
          ...at(id),
          body: { kind, text, made_on: 0 },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

export async function handIn(id: string, remark: string): Promise<Schemas['HandedIn']> {
  return unwrap(await client.POST('/api/drafts/{draft_id}/hand-in', { ...at(id), body: { remark } }));
}

/** Puts a draft away, or takes it out again. */
export function usePutAway(): (id: string, away: boolean) => Promise<void> {
  const queries = useQueryClient();
  return async (id, away) => {
    unwrap(await client.PUT('/api/drafts/{draft_id}/away', { ...at(id), body: { put_away: away } }));
    await askAgain(queries, { queryKey: draftsQuery.queryKey });
  };
}

/** Where what a draft says can be fetched as a file. */
export function draftHref(id: string): string {
  return `/api/drafts/${encodeURIComponent(id)}/document.json`;
}
