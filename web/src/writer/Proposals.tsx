/** What was found at the bench, beside the draft: each is taken or left by one key. */
import { UnstyledButton } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { client, unwrap } from '../api/client';
import { type Draft, proposalsQuery } from './api';
import classes from './Proposals.module.css';
import type { Writing } from './writing';

export function Proposals({ draft, writing }: { draft: Draft; writing: Writing }) {
  const { data } = useQuery(proposalsQuery(draft.id, draft.changes));
  const queries = useQueryClient();
  if (!data || data.length === 0 || !draft.may_write) return null;
  const leave = async (proposal: string) => {
    const path = { draft_id: draft.id };
    const left = await client.POST('/api/drafts/{draft_id}/proposals/leave', { params: { path }, body: { proposal } });
    queries.setQueryData(proposalsQuery(draft.id, draft.changes).queryKey, unwrap(left));
  };
  return (
    <section className={classes.proposals} aria-label="From the bench">
      <h2>From the bench · {data.length}</h2>
      <ul>
        {data.map((one) => (
          <li key={one.id}>
            <span>
              {one.what} {one.engine && <small>{one.engine}</small>}
            </span>
            <b>{one.said}</b>
            <UnstyledButton onClick={() => void writing.write(one.edit)}>take</UnstyledButton>
            <UnstyledButton onClick={() => void leave(one.id)}>leave</UnstyledButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
