/** Describing an engine: one question, one picture, one input, a tape that can be undone; the run of work, and the whole as JSON. */
import { Button, UnstyledButton } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from '@tanstack/react-router';
import { Suspense, useState } from 'react';
import type { KeyAction } from '../app/keys';
import { later } from '../app/later';
import { Mark } from '../app/Mark';
import { Notice, Waiting } from '../app/Notice';
import { SchemeButton } from '../app/SchemeButton';
import { Ask } from './Ask';
import { type Draft, draftQuery, standingQuery, walkQuery } from './api';
import { HandIn } from './HandIn';
import { keysFor, Proposals, useProposed } from './Proposals';
import { Rail } from './Rail';
import { RunSheet } from './RunSheet';
import { openOf, Standing } from './Standing';
import { Tables } from './Tables';
import { Tape } from './Tape';
import classes from './Writer.module.css';
import { useWriting } from './writing';

const AsJson = later(async () => (await import('./AsJson')).AsJson);
const Photo = later(async () => (await import('./photo/Photo')).Photo);
const EveryField = later(async () => (await import('./EveryField')).EveryField);

export const RUN = 'run';
export const JSON_ = 'json';
export const TABLES = 'tables';
export const PHOTO = 'photo';
export const FIELDS = 'fields';
const SCREENS = [RUN, JSON_, TABLES, PHOTO];

export function WriterPage({ id, at }: { id: string; at: string | undefined }) {
  const draft = useQuery(draftQuery(id));
  if (draft.isPending) return <Waiting what="Fetching the draft" />;
  if (!draft.data)
    return (
      <Notice title="The draft cannot be shown" toFloor retry={() => draft.refetch()}>
        {draft.error?.message}
      </Notice>
    );
  return <Writer draft={draft.data} at={at} />;
}

function Writer({ draft, at }: { draft: Draft; at: string | undefined }) {
  const writing = useWriting(draft);
  const navigate = useNavigate();
  const [handing, setHanding] = useState(false);
  const { view } = draft;
  const isAsked = view.questions.length > 0;
  const first = isAsked ? (view.next ?? view.questions[0]?.key) : RUN;
  const isScreen = at !== undefined && (SCREENS.includes(at) || at.startsWith(FIELDS));
  const known = isScreen || view.questions.some((one) => one.key === at);
  const shown = (known ? at : undefined) ?? first ?? RUN;
  const go = (key: string | null | undefined) =>
    void navigate({ to: '/drafts/$id', params: { id: draft.id }, search: { at: key ?? RUN }, replace: true });
  const standing = useQuery(standingQuery(draft.id, draft.changes));
  const isSound = standing.data !== undefined && standing.data.faults.length === 0;
  const walk = useQuery(walkQuery(draft.id, draft.changes, isSound));
  const question = view.questions.find((one) => one.key === shown);
  const move = (by: number) => {
    const n = view.questions.findIndex((one) => one.key === shown);
    const next = view.questions[n + by];
    if (n >= 0 && next) go(next.key);
  };
  useDocumentTitle(`${draft.name || 'A draft'} · Gurvo`);
  const writes: KeyAction[] = draft.may_write
    ? [
        { keys: ['u'], label: 'undo', run: () => void writing.undo() },
        { keys: ['y'], label: 'do again', quiet: true, run: () => void writing.redo() },
        { keys: ['i'], label: 'hand in', quiet: true, run: () => setHanding(true) },
      ]
    : [];
  const around: KeyAction[] = isAsked
    ? [
        { keys: ['ArrowDown'], label: 'question', shown: '↑ ↓', run: () => move(1) },
        { keys: ['ArrowUp'], label: 'question before', quiet: true, run: () => move(-1) },
        { keys: ['q'], label: 'what is open', quiet: true, run: () => go(view.next ?? view.questions[0]?.key) },
      ]
    : [];
  const proposed = useProposed(draft, writing);
  const common: KeyAction[] = [
    ...(question ? around : around.slice(2)),
    { keys: ['e'], label: 'run of work', run: () => go(RUN) },
    { keys: ['t'], label: 'tables', run: () => go(TABLES) },
    { keys: ['p'], label: 'photo', quiet: true, run: () => go(PHOTO) },
    { keys: ['f'], label: 'every field', run: () => go(FIELDS) },
    { keys: ['j'], label: 'as JSON', quiet: true, run: () => go(JSON_) },
    ...writes,
    ...keysFor(proposed),
    { keys: ['o'], label: 'families', quiet: true, run: () => void navigate({ to: '/families' }) },
  ];
  return (
    <div className={classes.writer}>
      <header className={classes.head}>
        <Link to="/families" className={classes.home} aria-label="Gurvo, to the families">
          <Mark />
        </Link>
        <div className={classes.name}>
          <b>{draft.name || 'Not named yet'}</b>
          <span>
            draft · begun from {draft.begun_from} ·{' '}
            {draft.handed_in ? `handed in as revision ${draft.handed_in}` : 'kept'}
          </span>
        </div>
        <div className={classes.tools}>
          <SchemeButton />
          <UnstyledButton className={classes.tool} aria-pressed={shown === JSON_} onClick={() => go(JSON_)}>
            as JSON
          </UnstyledButton>
          {draft.may_write && (
            <Button disabled={!isSound || openOf(draft).length > 0} onClick={() => setHanding(true)}>
              Hand in
            </Button>
          )}
        </div>
        <Standing.Head standing={standing.data} walk={walk.data} draft={draft} />
      </header>
      <Rail draft={draft} shown={shown} onChoose={go} />
      <Suspense fallback={<Waiting what="Fetching it" />}>
        {shown === RUN && (
          <RunSheet
            draft={draft}
            writing={writing}
            faults={[...(standing.data?.faults ?? []), ...(walk.data?.stuck ?? [])]}
            shots={walk.data?.shots ?? []}
            onAll={(place) => go(FIELDS + place)}
            common={common}
          />
        )}
        {shown === TABLES && <Tables draft={draft} writing={writing} common={common} />}
        {shown === JSON_ && (
          <AsJson draft={draft} writing={writing} faults={standing.data?.faults ?? []} common={common} />
        )}
        {shown === PHOTO && <Photo draft={draft} writing={writing} front={standing.data?.front} common={common} />}
        {shown.startsWith(FIELDS) && (
          <EveryField
            draft={draft}
            writing={writing}
            place={shown.slice(FIELDS.length).replace(/^:/, '')}
            onPlace={(place) => go(FIELDS + (place === '' || place.startsWith('/') ? place : `:${place}`))}
            faults={standing.data?.faults ?? []}
            proposed={proposed}
            common={common}
          />
        )}
        {question && (
          <Ask
            key={question.key}
            draft={draft}
            question={question}
            writing={writing}
            standing={standing.data}
            go={go}
            common={common}
          />
        )}
      </Suspense>
      <aside className={classes.side}>
        <Standing standing={standing.data} walk={walk.data} onQuestion={go} onPath={(path) => go(`${FIELDS}:${path}`)}>
          <Proposals {...proposed} first={proposed.all[0]?.id} />
        </Standing>
        <Tape draft={draft} writing={writing} onQuestion={go} />
      </aside>
      {handing && <HandIn draft={draft} walk={walk.data} onClose={() => setHanding(false)} />}
    </div>
  );
}
