/** Whether the draft can be built by, and what is doubtful or not known: each leads to the question that settles it. */
import { UnstyledButton } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import type { Draft } from './api';
import classes from './Standing.module.css';

type Sentences = Schemas['Standing']['faults'];

interface StandingProps {
  standing: Schemas['Standing'] | undefined;
  walk: Schemas['Walk'] | undefined;
  onQuestion: (key: string) => void;
  /** Opens the field that a path leads to, where no question settles it. */
  onPath: (path: string) => void;
  /** What stands before all of it. */
  children?: ReactNode;
}

const SHOWN = 8;

export function Standing({ standing, walk, onQuestion, onPath, children }: StandingProps) {
  if (!standing) return <div className={classes.standing} />;
  const stuck = walk && standing.faults.length === 0 ? walk.stuck.map((one) => ({ ...one, question: null })) : [];
  const ways = { onQuestion, onPath };
  return (
    <div className={classes.standing}>
      {children}
      <Group title="Faults" sort="fault" said={[...standing.faults, ...stuck]} {...ways} />
      <Group title="Doubtful" sort="doubt" said={standing.doubtful} {...ways} />
      <Group title="Not known" sort="open" said={standing.not_known} {...ways} />
    </div>
  );
}

interface GroupProps {
  title: string;
  sort: 'fault' | 'doubt' | 'open';
  said: Sentences;
  onQuestion: (key: string) => void;
  onPath: (path: string) => void;
}

function Group({ title, sort, said, onQuestion, onPath }: GroupProps) {
  if (said.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2>
        {title} · {said.length}
      </h2>
      <ul>
        {said.slice(0, SHOWN).map((one) => (
          <li key={`${one.path} ${one.sentence}`} data-sort={sort}>
            <UnstyledButton onClick={() => (one.question ? onQuestion(one.question) : onPath(one.path))}>
              {one.sentence}
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {said.length > SHOWN && <p>and {said.length - SHOWN} more</p>}
    </section>
  );
}

interface HeadProps {
  standing: Schemas['Standing'] | undefined;
  walk: Schemas['Walk'] | undefined;
  draft: Draft;
}

/** What must be answered before anything can be built by it. */
export function openOf(draft: Draft): Draft['view']['questions'] {
  return draft.view.questions.filter((one) => !one.costs && one.status === 'open');
}

/** The answer to “can it be built?”, always on top. */
function Head({ standing, walk, draft }: HeadProps) {
  const must = openOf(draft);
  const isStuck = walk !== undefined && walk.stuck.length > 0;
  const can = standing !== undefined && standing.faults.length === 0 && must.length === 0 && !isStuck;
  const walked = walk && walk.faults.length === 0 && !isStuck;
  return (
    <div className={classes.head} data-can={can} role="status">
      <b>{standing === undefined ? 'Looking through it' : can ? 'Can be built' : 'Not yet'}</b>
      <span>
        {can && walked && `walked from receiving to hand-over: ${walk.steps} steps`}
        {can && !walked && 'being walked through'}
        {!can && standing && standing.faults.length > 0 && `${standing.faults.length} faults`}
        {!can && isStuck && 'somebody would get stuck in its run of work'}
        {!can && standing?.faults.length === 0 && !isStuck && `open yet: ${must.map((one) => one.about).join(', ')}`}
      </span>
      {standing && standing.faults.length === 0 && (
        <span>
          {standing.doubtful.length > 0 && `${standing.doubtful.length} doubtful · `}
          {standing.not_known.length} not known, asked at the bench
        </span>
      )}
    </div>
  );
}

Standing.Head = Head;
