/** Who is signed in; the one place that knows its cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';
import { isAsBefore, orAsBefore } from './reloaded';

const ASK_AGAIN_MS = 3_000;

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: ({ signal, queryKey }) =>
    orAsBefore(queryKey, async () => unwrap(await client.GET('/api/session', { signal }))),
  staleTime: 60_000,
  refetchInterval: ({ queryKey }) => (isAsBefore(queryKey) ? ASK_AGAIN_MS : false),
});
