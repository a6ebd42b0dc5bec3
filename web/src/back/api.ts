/** How a family's engines came out; asked again while some are still being drawn up. */
import { queryOptions } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';

const AGAIN_MS = 400;

export const backQuery = (code: string) =>
  queryOptions({
    queryKey: ['back', code],
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/back/{code}', { params: { path: { code } }, signal })),
    refetchInterval: ({ state }) => (state.data?.left ? AGAIN_MS : false),
  });
