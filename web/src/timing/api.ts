/** Reads of the timing; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

/** What is likely wrong, by what was measured and which looks were made. */
export const causesQuery = (serial: string, seen: Record<string, boolean>, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'causes', seen, entries],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) =>
      unwrap(
        await client.POST('/api/engines/{serial}/causes', { params: { path: { serial } }, body: { seen }, signal }),
      ),
  });
