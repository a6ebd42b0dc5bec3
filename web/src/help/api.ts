/** The help and the words of the trade; they change with a version alone, so they are fetched once. */
import { queryOptions } from '@tanstack/react-query';
import { client, type Schemas, unwrap } from '../api/client';
import type { Question } from '../ledger/contract';

export const helpQuery = queryOptions({
  queryKey: ['help'],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: async ({ signal }) => unwrap(await client.GET('/api/help', { signal })),
});

/** What a question is about; a step to be done by what it does. */
export function topicOf(help: Schemas['Help'] | undefined, question: Question): Schemas['Topic'] | undefined {
  return help?.topics[question.kind === 'step_done' ? `step_done:${question.does}` : question.kind];
}
