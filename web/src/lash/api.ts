/** Reads of valve clearances; the one place that knows their cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

/** What shims would give; read anew once something has been entered. */
export const shimsQuery = (serial: string, step: string, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'shims', step, entries],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}/lash/{step}', { params: { path: { serial, step } }, signal })),
  });
