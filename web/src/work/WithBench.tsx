/** Waits for an engine's bench and hands it on; one that cannot be shown says why. */
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { ApiProblem, type Schemas } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import { benchQuery } from '../ledger/api';

interface WithBenchProps {
  serial: string;
  /** Whether something else is still to come. */
  wait?: boolean;
  children: (bench: Schemas['Bench']) => ReactNode;
}

export function WithBench({ serial, wait = false, children }: WithBenchProps) {
  const bench = useQuery(benchQuery(serial));
  if (bench.isPending || wait) return <Waiting what={`Fetching ${serial}`} />;
  if (bench.data) return children(bench.data);
  const retry = bench.error instanceof ApiProblem ? {} : { retry: () => bench.refetch() };
  return (
    <Notice title={`${serial} cannot be shown`} toFloor {...retry}>
      {bench.error.message}
    </Notice>
  );
}
