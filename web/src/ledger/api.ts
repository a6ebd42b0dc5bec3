/** Reads of one engine's bench and tape; the one place that knows their cache keys. */
import { queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';
import { orAsBefore } from '../app/reloaded';

/** Others' entries are seen within so long. The answer carries a tag: nothing is sent while nothing has changed. */
export const LOOK_AGAIN_MS = 1_500;

export const benchQuery = (serial: string) =>
  queryOptions({
    queryKey: ['bench', serial],
    refetchInterval: LOOK_AGAIN_MS,
    queryFn: ({ signal, client: queries, queryKey }) =>
      orAsBefore(queryKey, async () => {
        // what the page has may have come with an entry's answer: while that is how it stands, nothing is sent
        const had = queries.getQueryData<Schemas['Bench']>(queryKey);
        const headers = had ? { 'If-None-Match': had.tag } : {};
        const answer = await client.GET('/api/engines/{serial}', { params: { path: { serial } }, signal, headers });
        return had && answer.response.status === 304 ? had : unwrap(answer);
      }),
  });

export async function olderTape(serial: string, before: number): Promise<Schemas['TapeLine'][]> {
  return unwrap(
    await client.GET('/api/engines/{serial}/entries', { params: { path: { serial }, query: { before, limit: 60 } } }),
  );
}
