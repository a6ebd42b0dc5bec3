/** What was found at the bench, beside the draft: the topmost is taken or left by one key, each by its button. */
import { UnstyledButton } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { isNow } from '../api/again';
import { client, type Schemas, unwrap } from '../api/client';
import type { KeyAction } from '../app/keys';
import { type Draft, proposalsQuery } from './api';
import classes from './Proposals.module.css';
import type { Writing } from './writing';

type Proposal = Schemas['Proposal'];

export interface Proposed {
  all: Proposal[];
  take: (one: Proposal) => void;
  leave: (one: Proposal) => void;
}

/** What the bench proposes to a draft, and what is done about it; nothing to whoever does not write it. */
export function useProposed(draft: Draft, writing: Writing): Proposed {
  const { data } = useQuery(proposalsQuery(draft.id, draft.changes));
  const queries = useQueryClient();
  const leave = async (proposal: string) => {
    const path = { draft_id: draft.id };
    const left = await client.POST('/api/drafts/{draft_id}/proposals/leave', { params: { path }, body: { proposal } });
    isNow(queries, proposalsQuery(draft.id, draft.changes).queryKey, unwrap(left));
  };
  return {
    all: draft.may_write ? (data ?? []) : [],
    take: (one) => void writing.write(one.edit),
    leave: (one) => void leave(one.id),
  };
}

export function keysFor({ all, take, leave }: Proposed): KeyAction[] {
  const first = all[0];
  if (!first) return [];
  return [
    { keys: ['g'], label: 'take from the bench', quiet: true, run: () => take(first) },
    { keys: ['b'], label: 'leave what the bench says', quiet: true, run: () => leave(first) },
  ];
}

/** ``first`` is the one that the keys are for. */
export function Proposals({
  all,
  take,
  leave,
  first,
  title = 'From the bench',
}: Proposed & { first: string | undefined; title?: string }) {
  if (all.length === 0) return null;
  return (
    <section className={classes.proposals} aria-label={title}>
      <h2>
        {title} · {all.length}
      </h2>
      <ul>
        {all.map((one) => (
          <li key={one.id}>
            <span>
              {one.what} {one.engine && <small>{one.engine}</small>}
            </span>
            <b>{one.said}</b>
            <UnstyledButton onClick={() => take(one)}>{one.id === first && <kbd>G</kbd>} take</UnstyledButton>
            <UnstyledButton onClick={() => leave(one)}>{one.id === first && <kbd>B</kbd>} leave</UnstyledButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
