/** Reads of fits; the one place that knows their cache keys. */
import { queryOptions, useQuery } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';

/** All of one fit; read anew once something has been entered. */
export const fitQuery = (serial: string, step: string, fit: string, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'fit', step, fit, entries],
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/api/engines/{serial}/fits/{step}/{fit}', {
          params: { path: { serial, step, fit } },
          signal,
        }),
      ),
  });

/** The sheet of the fit that is asked about; while it is read anew the one before is shown. */
export function useFitSheet(
  bench: Schemas['Bench'],
  about: { step: string; fit: string } | null,
): Schemas['FitSheet'] | undefined {
  const { data } = useQuery({
    ...fitQuery(bench.engine.serial, about?.step ?? '', about?.fit ?? '', bench.entries),
    enabled: about !== null,
    placeholderData: (before) => before,
  });
  return data?.fit.id === about?.fit ? data : undefined;
}

/** Compression ratio and squish, as measured or with another gasket or a skimmed head. */
export const chamberQuery = (serial: string, asked: { gasket: string; skimmed_mm: number }, entries: number) =>
  queryOptions({
    queryKey: ['bench', serial, 'chamber', asked, entries],
    retry: false,
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/engines/{serial}/chamber', { params: { path: { serial }, query: asked }, signal })),
  });

/** What a pasted sheet says, before any of it is kept. */
export async function readPasted(serial: string, step: string, fit: string, text: string) {
  return unwrap(
    await client.POST('/api/engines/{serial}/fits/{step}/{fit}/pasted', {
      params: { path: { serial, step, fit } },
      body: { text },
    }),
  );
}
