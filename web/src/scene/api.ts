/** Reads of an engine's pictures; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';
import type { TwinOf } from '../motion/api';

/** The pictures of a revision, which never change. */
export const familySceneQuery = (code: string, number: number) =>
  queryOptions({
    queryKey: ['scene', 'family', code, number],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async ({ signal }): Promise<Schemas['Scene']> =>
      unwrap(
        await client.GET('/api/families/{code}/revisions/{number}/scene', {
          params: { path: { code, number } },
          signal,
        }),
      ),
  });

/** The engine from the side as its crank turns; of an engine at work with what was found at its bench. */
export const turningQuery = (of: TwinOf) =>
  queryOptions({
    queryKey: ['scene', 'turning', ...('serial' in of ? [of.serial, of.cams] : [of.code, of.number])],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async ({ signal }): Promise<Schemas['SideTurning']> =>
      'serial' in of
        ? unwrap(await client.GET('/api/engines/{serial}/turning', { params: { path: { serial: of.serial } }, signal }))
        : unwrap(await client.GET('/api/families/{code}/revisions/{number}/turning', { params: { path: of }, signal })),
  });

/** What the ledger says of a part; ``head`` changes with every entry. */
export const partQuery = (serial: string, part: string, head: string) =>
  queryOptions({
    queryKey: ['scene', serial, 'part', part, head],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['PartTold']> =>
      unwrap(await client.GET('/api/engines/{serial}/parts/{part}', { params: { path: { serial, part } }, signal })),
  });

/** ``known`` changes with whatever the pictures are made from: the revision, and what was found at the bench. */
export const sceneQuery = (serial: string, known: string, crank_deg: number) =>
  queryOptions({
    queryKey: ['scene', serial, known, crank_deg],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['Scene']> =>
      unwrap(
        await client.GET('/api/engines/{serial}/scene', {
          params: { path: { serial }, query: { crank_deg } },
          signal,
        }),
      ),
  });
