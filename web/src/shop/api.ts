/** Reads of the shop; the one place that knows their cache keys. */
import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { askAgain, isNow } from '../api/again';
import { ApiProblem, client, type Schemas, unwrap } from '../api/client';
import { sessionQuery } from '../app/api';
import { orAsBefore } from '../app/reloaded';

export const gaugesQuery = queryOptions({
  queryKey: ['gauges'],
  queryFn: ({ signal, queryKey }) =>
    orAsBefore(queryKey, async () => unwrap(await client.GET('/api/gauges', { signal }))),
});

export const stockQuery = queryOptions({
  queryKey: ['stock'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/stock', { signal })),
});

/** What a gauge was tried against, and what it was used on. */
export const gaugeHistoryQuery = (code: string) =>
  queryOptions({
    queryKey: ['gauges', code],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/gauges/{code}/history', { params: { path: { code } }, signal })),
  });

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/people', { signal })),
});

/** What the shop has chosen for all its benches. */
export const choicesQuery = queryOptions({
  queryKey: ['people', 'choices'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/people/choices', { signal })),
});

/** Who may take over a bench that is signed in. */
export const hereQuery = queryOptions({
  queryKey: ['people', 'here'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/session/people', { signal })),
});

/** The keys that whoever is signed in has made for his programs. */
export const scriptKeysQuery = queryOptions({
  queryKey: ['keys'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/keys', { signal })),
});

export function useScriptKeys() {
  const queries = useQueryClient();
  const onSettled = () => askAgain(queries, { queryKey: scriptKeysQuery.queryKey });
  const make = useMutation({
    mutationFn: async (name: string) => unwrap(await client.POST('/api/keys', { body: { name } })),
    onSettled,
  });
  const takeBack = useMutation({
    mutationFn: async (key_id: number) => {
      const { error, response } = await client.DELETE('/api/keys/{key_id}', { params: { path: { key_id } } });
      if (error) unwrap({ error, response });
    },
    onSettled,
  });
  return { make, takeBack };
}

export const signInLogQuery = queryOptions({
  queryKey: ['people', 'log'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/people/log', { signal })),
});

/** Changes to people: each says whether it was taken; what was refused stays said until the next. */
export function usePeopleChanges() {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState<ApiProblem | null>(null);
  const taken = async (ask: () => Promise<Schemas['PersonRow'][]>) => {
    try {
      isNow(queries, peopleQuery.queryKey, await ask());
    } catch (error) {
      setWrong(error instanceof ApiProblem ? error : new ApiProblem(0, 'The server does not answer; try again.'));
      return false;
    }
    setWrong(null);
    await askAgain(queries, { queryKey: signInLogQuery.queryKey });
    return true;
  };
  const at = (username: string) => ({ params: { path: { username } } });
  return {
    wrong,
    add: (body: Schemas['PersonIn']) => taken(async () => unwrap(await client.POST('/api/people', { body }))),
    change: (username: string, body: Schemas['PersonChange']) =>
      taken(async () => unwrap(await client.PATCH('/api/people/{username}', { ...at(username), body }))),
    choose: async (body: Schemas['ShopChoices']) => {
      const chosen = await taken(async () => {
        unwrap(await client.PUT('/api/people/choices', { body }));
        return unwrap(await client.GET('/api/people'));
      });
      if (!chosen) return false;
      await askAgain(queries, { queryKey: sessionQuery.queryKey });
      await askAgain(queries, { queryKey: choicesQuery.queryKey });
      return true;
    },
    unlock: (username: string) =>
      taken(async () => unwrap(await client.POST('/api/people/{username}/unlock', at(username)))),
  };
}

/** What stands at the head of papers. */
export const letterheadQuery = queryOptions({
  queryKey: ['letterhead'],
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/letterhead', { signal })),
});

export async function setLetterhead(said: Schemas['LetterheadIn']): Promise<Schemas['LetterheadOut']> {
  return unwrap(await client.PUT('/api/letterhead', { body: said }));
}

/** The shop's own mark, at the head of papers; none takes it off. */
export async function setMark(file: File | null): Promise<Schemas['LetterheadOut']> {
  if (!file) return unwrap(await client.DELETE('/api/letterhead/mark'));
  const form = new FormData();
  form.append('file', file);
  return unwrap(await client.POST('/api/letterhead/mark', { body: { file: '' }, bodySerializer: () => form }));
}
