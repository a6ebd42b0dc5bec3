/** The frame of Floor, Families and Gauges, and the door: nobody passes without signing in. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, Outlet, useLocation } from '@tanstack/react-router';
import { Suspense, useState } from 'react';
import type { Schemas } from '../api/client';
import { sessionQuery } from '../app/api';
import { onDemand } from '../app/later';
import { Mark } from '../app/Mark';
import { Notice, Waiting } from '../app/Notice';
import { SchemeButton } from '../app/SchemeButton';
import { usePerson, useSignOut } from '../app/session';
import { useOutbox, useSending } from '../ledger/outbox';
import { AskPassword } from '../shop/AskPassword';
import { Here } from '../shop/Here';
import { SignIn } from '../shop/SignIn';
import { useAtWork } from '../shop/useAtWork';
import classes from './Shell.module.css';

/** Asks for the session first; everything inside may rely on a person. */
export function Door() {
  const session = useQuery(sessionQuery);
  useSending(session.data?.person?.username);
  const kept = useOutbox().items.length;
  if (session.isPending) return <Waiting what="Opening the shop" />;
  if (!session.data)
    return (
      <Notice title="The server does not answer" retry={() => session.refetch()}>
        {kept === 0
          ? 'What is typed is kept on this machine.'
          : `${kept} ${kept === 1 ? 'entry is' : 'entries are'} kept on this machine.`}{' '}
        Check that Gurvo is running, then try again.
      </Notice>
    );
  if (!session.data.person) return <Outside session={session.data} />;
  return <AtWork session={session.data} />;
}

const FirstRun = onDemand(async () => (await import('../first/FirstRun')).FirstRun);
const AtBench = onDemand(async () => (await import('../first/AtBench')).AtBench);
const Pair = onDemand(async () => (await import('../first/Pair')).Pair);

const Wall = onDemand(async () => (await import('../work/Wall')).Wall);

/** Before the door: a new shop asks for its first lead, a device that a lead pairs for its code, a paired one for a PIN, or shows the wall's page. */
function Outside({ session }: { session: Schemas['Session'] }) {
  const { pathname } = useLocation();
  return <Suspense fallback={<Waiting what="Opening the shop" />}>{atDoor(session, pathname)}</Suspense>;
}

function atDoor(session: Schemas['Session'], pathname: string) {
  if (session.is_new) return <FirstRun person={null} />;
  if (pathname === '/pair') return <Pair />;
  if (!session.bench) return <SignIn />;
  return pathname === '/wall' ? <Wall /> : <AtBench bench={session.bench} />;
}

/** Everything behind the door; a bench left alone stays as it is underneath the question who is there. */
function AtWork({ session }: { session: Schemas['Session'] }) {
  useAtWork(session);
  const { pathname } = useLocation();
  return (
    <>
      <Outlet />
      {/* a screen on the wall takes nothing from anybody, so it asks nobody */}
      <Here opened={session.left_alone && pathname !== '/wall'} />
      <AskPassword />
    </>
  );
}

const VIEWS = [
  { to: '/', label: 'Floor' },
  { to: '/families', label: 'Families' },
  { to: '/gauges', label: 'Gauges' },
  { to: '/stock', label: 'Stock' },
  { to: '/workings', label: 'Workings' },
  { to: '/people', label: 'People' },
] as const;

export function Shell() {
  const { person } = usePerson();
  const signOut = useSignOut();
  const [changing, setChanging] = useState(false);
  return (
    <div className={classes.frame}>
      <header className={classes.bar}>
        <Link to="/" className={classes.home} aria-label="Gurvo, to the Floor">
          <Mark />
        </Link>
        <nav className={classes.nav} aria-label="Views">
          {VIEWS.filter((view) => view.to !== '/people' || person.role === 'lead').map((view) => (
            <Link
              key={view.to}
              to={view.to}
              activeOptions={{ exact: view.to === '/' }}
              activeProps={{ 'aria-current': 'page' }}
            >
              {view.label}
            </Link>
          ))}
        </nav>
        <div className={classes.who}>
          <SchemeButton />
          <UnstyledButton className={classes.name} title="Change person" onClick={() => setChanging(true)}>
            {person.name} <small>{person.role}</small>
          </UnstyledButton>
          <Here opened={changing} onClose={() => setChanging(false)} />
          <UnstyledButton className={classes.quiet} onClick={() => signOut.mutate()}>
            Sign out
          </UnstyledButton>
        </div>
      </header>
      <Outlet />
    </div>
  );
}
