/** Reads of the shop; the one place that knows their cache keys. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

export const gaugesQuery = queryOptions({
  queryKey: ['gauges'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/gauges', { signal })),
});
