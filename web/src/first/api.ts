/** The first run's own questions to the server. */
import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { askAgain, isNow } from '../api/again';
import { client, type Schemas, unwrap } from '../api/client';
import { sessionQuery } from '../app/api';
import { familiesQuery } from '../engine/api';
import { gaugesQuery } from '../shop/api';
import { STEEL } from '../shop/kinds';

/** Makes the first lead, names the shop, and signs him in. */
export function useBeginShop() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['FirstRun']) => unwrap(await client.POST('/api/session/first', { body })),
    onSuccess: (session) => isNow(queries, sessionQuery.queryKey, session),
  });
}

export const usualGaugesQuery = queryOptions({
  queryKey: ['gauges', 'usual'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/gauges/usual', { signal })),
});

/** Puts gauges on the shelf, one after the other. */
export function useAddGauges() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (wanted: Schemas['UsualGaugeOut'][]) => {
      for (const { code, unit: _, ...gauge } of wanted) {
        const body: Schemas['GaugeIn'] = { ...gauge, certificate: '', expansion_um_m_k: STEEL, address: '' };
        unwrap(await client.PUT('/api/gauges/{code}', { params: { path: { code } }, body }));
      }
    },
    onSettled: () => askAgain(queries, { queryKey: gaugesQuery.queryKey }),
  });
}

export const examplesQuery = queryOptions({
  queryKey: ['examples'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/examples', { signal })),
});

export function useTakeExample() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (code: string) =>
      unwrap(await client.POST('/api/examples/{code}', { params: { path: { code } } })),
    onSuccess: () => askAgain(queries, { queryKey: familiesQuery.queryKey }),
  });
}

export const benchDevicesQuery = queryOptions({
  queryKey: ['benches'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/benches', { signal })),
});

/** Shows a code by which one device may be paired. */
export function useBeginPairing() {
  return useMutation({
    mutationFn: async (name: string) => unwrap(await client.POST('/api/benches', { body: { name } })),
  });
}

export function useUnpair() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (bench_id: number) => {
      const { error, response } = await client.DELETE('/api/benches/{bench_id}', { params: { path: { bench_id } } });
      if (error) unwrap({ error, response });
    },
    onSettled: () => askAgain(queries, { queryKey: benchDevicesQuery.queryKey }),
  });
}

/** Makes this device the one at a bench. */
export function usePairHere() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (code: string) => unwrap(await client.POST('/api/session/pair', { body: { code } })),
    onSuccess: (session) => isNow(queries, sessionQuery.queryKey, session),
  });
}

/** Shows at a paired device who is there. */
export function useAtBench() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['Here']) => unwrap(await client.POST('/api/session/at-bench', { body })),
    onSuccess: (session) => isNow(queries, sessionQuery.queryKey, session),
  });
}
