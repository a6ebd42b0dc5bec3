/** Reads and changes of families; the one place that knows their cache keys. */
import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { askAgain } from '../api/again';
import { client, type Schemas, unwrap } from '../api/client';

export const familiesQuery = queryOptions({
  queryKey: ['families'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/families', { signal })),
});

/** A family at one revision; at its newest when none is named. */
export const familyQuery = (code: string, number?: number) =>
  queryOptions({
    queryKey: ['families', code, 'revision', number ?? 'newest'],
    queryFn: async ({ signal }) =>
      number === undefined
        ? unwrap(await client.GET('/api/families/{code}', { params: { path: { code } }, signal }))
        : unwrap(
            await client.GET('/api/families/{code}/revisions/{number}', { params: { path: { code, number } }, signal }),
          ),
  });

/** The front of a revision, which never changes. */
export const frontQuery = (code: string, number: number) =>
  queryOptions({
    queryKey: ['families', code, 'front', number],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/families/{code}/revisions/{number}/front', {
          params: { path: { code, number } },
          signal,
        }),
      ),
  });

export const differenceQuery = (code: string, before: number, after: number) =>
  queryOptions({
    queryKey: ['families', code, 'difference', before, after],
    enabled: before > 0 && after > 0 && before !== after,
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/families/{code}/difference', {
          params: { path: { code }, query: { before, after } },
          signal,
        }),
      ),
  });

/** What a document's text would become; nothing is kept. */
export const checkQuery = (text: string) =>
  queryOptions({
    queryKey: ['document-check', text],
    enabled: text.trim() !== '',
    queryFn: async ({ signal }) => unwrap(await client.POST('/api/families/check', { body: { text }, signal })),
  });

/** Whether a robot gets through its run of work; asked once it is sound. */
export const walkQuery = (text: string, isSound: boolean) =>
  queryOptions({
    queryKey: ['document-walk', text],
    enabled: isSound,
    queryFn: async ({ signal }) => unwrap(await client.POST('/api/families/walk', { body: { text }, signal })),
  });

export const liftTableQuery = (text: string, choices: Partial<Schemas['LiftTableChoices']>) =>
  queryOptions({
    queryKey: ['lift-table', text, choices],
    enabled: text.trim() !== '',
    queryFn: async ({ signal }) =>
      unwrap(
        await client.POST('/api/families/lift-table', {
          body: { text, choices: { id: 'measured-lobe', base_circle_mm: 0, ...choices } },
          signal,
        }),
      ),
  });

export function useImport() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['ImportIn']) => unwrap(await client.POST('/api/families', { body })),
    onSuccess: () => askAgain(queries, { queryKey: ['families'] }),
  });
}

/** Where a revision's document can be fetched as a file. */
export function documentHref(code: string, number: number): string {
  return `/api/families/${encodeURIComponent(code)}/revisions/${number}/document.json`;
}
