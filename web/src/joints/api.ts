/** Reads of one joint; the one place that knows its cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, typedQuery, unwrap } from '../api/client';

/** A joint that is looked at while another is being pulled; read anew once something has been entered. */
export const jointQuery = (serial: string, step: string, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'joint', step, entries],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}/joints/{step}', { params: { path: { serial, step } }, signal })),
  });

/** The traces of a joint's pulls that stand. */
export const jointTracesQuery = (serial: string, step: string, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'traces', step, entries],
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/engines/{serial}/joints/{step}/traces', { params: { path: { serial, step } }, signal }),
      ),
  });

/** What can be said of one bolt; what was left empty is not asked. */
export const workingsQuery = (typed: Record<string, string>) =>
  queryOptions({
    queryKey: ['workings', typed],
    retry: false,
    queryFn: async ({ signal }) => {
      const query = typedQuery(typed);
      return unwrap(
        await client.GET('/api/workings/bolt', { params: { query: { thread: typed.thread ?? '', ...query } }, signal }),
      );
    },
  });
