/** Reads of engines; the one place that knows their cache keys. */
import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

export const floorQuery = queryOptions({
  queryKey: ['floor'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/engines', { signal })),
});

export const benchQuery = (serial: string) =>
  queryOptions({
    queryKey: ['bench', serial],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}', { params: { path: { serial } }, signal })),
  });

export async function olderTape(serial: string, before: number): Promise<Schemas['TapeLine'][]> {
  return unwrap(
    await client.GET('/api/engines/{serial}/entries', { params: { path: { serial }, query: { before, most: 60 } } }),
  );
}

export function usePutOnStand() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['EngineIn']) => unwrap(await client.POST('/api/engines', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: floorQuery.queryKey }),
  });
}
