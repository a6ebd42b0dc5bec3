/** Reads of the drive: its workings, and what comes of laying a loop so. The one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, typedQuery, unwrap } from '../api/client';

/** What comes of a chain or belt laid as typed, and tried as far as it was turned; nothing of it is kept. */
export const layQuery = (serial: string, step: string, asked: Schemas['LayAsked'], entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'lay', step, asked, entries],
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) =>
      unwrap(
        await client.POST('/api/engines/{serial}/lay/{step}', {
          params: { path: { serial, step } },
          body: asked,
          signal,
        }),
      ),
  });

/** What can be said of one span and one chain; what was left empty is not asked. */
export const driveWorkingsQuery = (typed: Record<string, string>) =>
  queryOptions({
    queryKey: ['workings', 'drive', typed],
    retry: false,
    queryFn: async ({ signal }) => {
      const query = typedQuery(typed);
      return unwrap(await client.GET('/api/workings/drive', { params: { query }, signal }));
    },
  });

/** The pitch of a plucked span in a recording. */
export async function readPluck(file: File, typed: Record<string, string>) {
  const body = new FormData();
  body.append('file', file);
  const { span_mm = '', mass_g_m = '', tension_n = '' } = typed;
  const query = typedQuery({ span_mm, mass_g_m, tension_n });
  return unwrap(
    await client.POST('/api/workings/pluck', { params: { query }, body: { file: '' }, bodySerializer: () => body }),
  );
}
