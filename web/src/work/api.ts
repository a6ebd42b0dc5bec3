/** Reads of the Floor and of what an engine hands over; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { askAgain } from '../api/again';
import { client, type Schemas, unwrap } from '../api/client';
import { LOOK_AGAIN_MS } from '../ledger/api';

/** Which engines are looked for. */
export interface Wanted {
  search: string;
  late: boolean;
  loose_ends: boolean;
  open_only: boolean;
  archived: boolean;
  waits_on: Schemas['FloorRow']['waits_on'] | null;
  mine: string;
  page: number;
}

const FLOOR = 'floor';

export const floorQuery = ({ mine, ...wanted }: Wanted) =>
  queryOptions({
    queryKey: [FLOOR, mine, wanted],
    placeholderData: keepPreviousData,
    refetchInterval: LOOK_AGAIN_MS,
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/engines', {
          params: { query: { ...wanted, builder: mine } },
          signal,
        }),
      ),
  });

export function usePutOnStand() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['EngineIn']) => unwrap(await client.POST('/api/engines', { body })),
    onSuccess: () => askAgain(queries, { queryKey: [FLOOR] }),
  });
}

/** The tables of an engine in which something stands; each look at its papers asks anew. */
export const tablesQuery = (serial: string) =>
  queryOptions({
    queryKey: ['tables', serial],
    staleTime: 0,
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}/tables', { params: { path: { serial } }, signal })),
  });
