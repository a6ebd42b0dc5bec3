/** Reads of the timing; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, typedQuery, unwrap } from '../api/client';

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

/** What a worn chain, a skimmed head and a thicker gasket would do; what was left empty is as the book has it. */
export const changedQuery = (serial: string, typed: Record<string, string>) =>
  queryOptions({
    queryKey: ['bench', serial, 'changed', typed],
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const query = typedQuery(typed);
      return unwrap(await client.GET('/api/engines/{serial}/changed', { params: { path: { serial }, query }, signal }));
    },
  });
