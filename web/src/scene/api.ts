/** Reads of an engine's pictures; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

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
