/** The lead goes on from what there is: a family's newest document, or an engine as it was built here. */
import { Button } from '@mantine/core';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { useBegin } from './begin';

export function BeginFrom({ from, label }: { from: Schemas['DraftIn']; label: string }) {
  const { person } = usePerson();
  const { begin, wrong } = useBegin();
  if (person.role !== 'lead') return null;
  return (
    <>
      <Button variant="default" onClick={() => void begin(from)}>
        {label}
      </Button>
      {wrong && <p role="alert">{wrong}</p>}
    </>
  );
}
