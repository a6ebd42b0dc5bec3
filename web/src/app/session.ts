/** Who is signed in and how he likes to see things. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { askAgain, isNow } from '../api/again';
import { client, type Schemas, unwrap } from '../api/client';
import { sessionQuery } from './api';

export function useSession(): Schemas['Session'] | undefined {
  return useQuery(sessionQuery).data;
}

/** The person signed in; screens below the shell are shown to nobody else. */
export function usePerson(): { person: Schemas['Person']; units: Schemas['Session']['length_units'] } {
  const session = useSession();
  if (!session?.person)
    throw new Error('usePerson is for screens inside the Shell, which asks people to sign in first');
  return { person: session.person, units: session.length_units };
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['SignIn']) => unwrap(await client.POST('/api/session', { body })),
    onSuccess: (session) => isNow(queries, sessionQuery.queryKey, session),
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => {
      await client.DELETE('/api/session');
    },
    onSuccess: () => queries.resetQueries(),
  });
}

/** Shows who is at the bench: whoever left it, or another person who takes it over. What was typed stays. */
export function useHere() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: Schemas['Here']) => unwrap(await client.PUT('/api/session/here', { body })),
    onSuccess: async (session) => {
      isNow(queries, sessionQuery.queryKey, session);
      await askAgain(queries, { predicate: (query) => query.queryKey[0] !== sessionQuery.queryKey[0] });
    },
  });
}

/** Leaves the bench: nothing is taken until somebody shows who he is. */
export function useLeave(): () => void {
  const queries = useQueryClient();
  return () => {
    isNow(queries, sessionQuery.queryKey, (old) => old && { ...old, left_alone: true });
    void client.DELETE('/api/session/here').catch(() => undefined);
  };
}

/** Looks from the other end. */
export function useTurnRound(): () => void {
  const like = useLikings();
  const { person } = usePerson();
  return () => like({ seen_from: person.seen_from === 'front' ? 'flywheel' : 'front' });
}

/** Keeps a liking; shown at once, sent behind. */
export function useLikings() {
  const queries = useQueryClient();
  const { person } = usePerson();
  const keep = useMutation({
    mutationFn: async (body: Schemas['PreferenceIn']) => unwrap(await client.PUT('/api/me', { body })),
  });
  return (change: Partial<Schemas['PreferenceIn']>) => {
    const body = {
      length_unit: person.length_unit,
      seen_from: person.seen_from,
      shows_help: person.shows_help,
      ...change,
    };
    isNow(queries, sessionQuery.queryKey, (old) => old && { ...old, person: { ...person, ...body } });
    keep.mutate(body);
  };
}
