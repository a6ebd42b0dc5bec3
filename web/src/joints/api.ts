/** Reads of one joint; the one place that knows its cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

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
