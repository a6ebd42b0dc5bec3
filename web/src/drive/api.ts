/** Reads of the drive's workings; the one place that knows their cache key. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

/** What can be said of one span and one chain; what was left empty is not asked. */
export const driveWorkingsQuery = (typed: Record<string, string>) =>
  queryOptions({
    queryKey: ['workings', 'drive', typed],
    retry: false,
    queryFn: async ({ signal }) => {
      const said = Object.entries(typed).filter(([, value]) => value.trim() !== '');
      const query = Object.fromEntries(said.map(([key, value]) => [key, value.trim().replace(',', '.')]));
      return unwrap(await client.GET('/api/workings/drive', { params: { query }, signal }));
    },
  });

/** The pitch of a plucked span in a recording. */
export async function readPluck(file: File) {
  const body = new FormData();
  body.append('file', file);
  return unwrap(await client.POST('/api/workings/pluck', { body: { file: '' }, bodySerializer: () => body }));
}
