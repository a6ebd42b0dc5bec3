/** After something was changed: an answer that was under way is older than the change, and must not be drawn. */
import type { DataTag, InvalidateQueryFilters, QueryClient, QueryKey, Updater } from '@tanstack/react-query';

/** Asks again, also what was never answered yet: left alone, the answer of before would stay as the newest. */
export async function askAgain(queries: QueryClient, which: InvalidateQueryFilters): Promise<void> {
  await queries.cancelQueries(which);
  await queries.invalidateQueries(which);
}

/** Puts what is known now in place of what an older question would bring. */
export function isNow<Told, Wrong>(
  queries: QueryClient,
  queryKey: DataTag<QueryKey, Told, Wrong>,
  told: Updater<NoInfer<Told> | undefined, NoInfer<Told> | undefined>,
): void {
  void queries.cancelQueries({ queryKey, exact: true });
  queries.setQueryData<Told>(queryKey as QueryKey, told);
}
