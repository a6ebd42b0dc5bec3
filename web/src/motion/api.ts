/** Reads of twins; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

export type Phasers = 'rest' | 'other stop';

/** Whose twin: a revision of a family, or an engine with its cams where they were measured. */
export type TwinOf = { code: string; number: number } | { serial: string; cams: number };

const keyOf = (of: TwinOf) =>
  'serial' in of ? ['twin', 'engine', of.serial, of.cams] : ['twin', 'family', of.code, of.number];

export const twinQuery = (of: TwinOf, phasers: Phasers) =>
  queryOptions({
    queryKey: [...keyOf(of), phasers],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['Twin']> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/twin', {
              params: { path: { serial: of.serial }, query: { phasers } },
              signal,
            }),
          )
        : unwrap(
            await client.GET('/api/families/{code}/revisions/{number}/twin', {
              params: { path: of, query: { phasers } },
              signal,
            }),
          ),
  });

/** What is to be seen at every degree; made and fetched apart, since the drawing need not wait for it. */
export const wordsQuery = (of: TwinOf, phasers: Phasers) =>
  queryOptions({
    queryKey: [...keyOf(of), phasers, 'words'],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<string[]> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/twin/words', {
              params: { path: { serial: of.serial }, query: { phasers } },
              signal,
            }),
          )
        : unwrap(
            await client.GET('/api/families/{code}/revisions/{number}/twin/words', {
              params: { path: of, query: { phasers } },
              signal,
            }),
          ),
  });

export const snapshotQuery = (of: TwinOf, crank_deg: number, phasers: Phasers) =>
  queryOptions({
    queryKey: [...keyOf(of), phasers, 'snapshot', crank_deg],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['Snapshot']> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/snapshot', {
              params: { path: { serial: of.serial }, query: { phasers, crank_deg } },
              signal,
            }),
          )
        : unwrap(
            await client.GET('/api/families/{code}/revisions/{number}/snapshot', {
              params: { path: of, query: { phasers, crank_deg } },
              signal,
            }),
          ),
  });
