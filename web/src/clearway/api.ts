/** Reads of the clearway; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

/** Whose: a revision of a family, or an engine with what was measured of it; ``head`` changes with its every entry. */
export type ClearwayOf = { code: string; number: number } | { serial: string; head: string };

const keyOf = (of: ClearwayOf) =>
  'serial' in of ? ['clearway', of.serial, of.head] : ['clearway', 'family', of.code, of.number];
const FAMILY = '/api/families/{code}/revisions/{number}';

export const clearwayQuery = (of: ClearwayOf) =>
  queryOptions({
    queryKey: keyOf(of),
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['ClearwayShown']> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/clearway', { params: { path: { serial: of.serial } }, signal }),
          )
        : unwrap(await client.GET(`${FAMILY}/clearway`, { params: { path: of }, signal })),
  });

export const mapQuery = (of: ClearwayOf, first: string, second: string) =>
  queryOptions({
    queryKey: [...keyOf(of), 'map', first, second],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['ClearwayMap']> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/clearway/map', {
              params: { path: { serial: of.serial }, query: { first, second } },
              signal,
            }),
          )
        : unwrap(
            await client.GET(`${FAMILY}/clearway/map`, { params: { path: of, query: { first, second } }, signal }),
          ),
  });

export const atQuery = (of: ClearwayOf, place: Schemas['MapPlace']) =>
  queryOptions({
    queryKey: [...keyOf(of), 'at', place],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['AtPlaces']> =>
      'serial' in of
        ? unwrap(
            await client.GET('/api/engines/{serial}/clearway/at', {
              params: { path: { serial: of.serial }, query: place },
              signal,
            }),
          )
        : unwrap(await client.GET(`${FAMILY}/clearway/at`, { params: { path: of, query: place }, signal })),
  });
