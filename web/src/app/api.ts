/** Who is signed in; the one place that knows its cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/session', { signal })),
  staleTime: 60_000,
});
