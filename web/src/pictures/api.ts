/** Reads of pictures; the one place that knows their cache keys. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

export type OnPicture = Schemas['OnPicture'];

/** ``entries`` changes with every entry of the bench, and with it what is known of them. */
export const picturesQuery = (serial: string, entries: number) =>
  queryOptions({
    queryKey: ['pictures', serial, entries],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<Schemas['PictureView'][]> =>
      unwrap(await client.GET('/api/engines/{serial}/pictures', { params: { path: { serial } }, signal })),
  });

export const examplesQuery = (serial: string) =>
  queryOptions({
    queryKey: ['examples', serial],
    staleTime: 30_000,
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}/examples', { params: { path: { serial } }, signal })),
  });

export async function nameExample(serial: string, step: string, digest: string): Promise<void> {
  unwrap(await client.PUT('/api/engines/{serial}/examples', { params: { path: { serial } }, body: { step, digest } }));
}
