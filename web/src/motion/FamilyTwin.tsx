/** The twin of a family's document, as its card has the cams. */
import { UnstyledButton } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearch } from '@tanstack/react-router';
import { Notice, Waiting } from '../app/Notice';
import type { Voice } from '../app/saying';
import { useTurnRound } from '../app/session';
import { useVoice } from '../app/voice';
import { familyQuery } from '../engine/api';
import classes from './FamilyTwin.module.css';
import { Twin } from './Twin';

export function FamilyTwin() {
  const { code } = useParams({ from: '/shell/families/$code/twin' });
  const { revision } = useSearch({ from: '/shell/families/$code/twin' });
  const navigate = useNavigate();
  const { data, error, isPending } = useQuery(familyQuery(code, revision));
  useDocumentTitle(`${data?.name ?? code} · twin · Gurvo`);
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  return (
    <div className={classes.page}>
      <nav className={classes.path} aria-label="Where this is">
        <Link to="/families">Families</Link> ›{' '}
        <Link to="/families/$code" params={{ code }} search={revision ? { revision } : {}}>
          {data.name}
        </Link>{' '}
        › twin, revision {data.revision}
      </nav>
      <Turned
        code={code}
        number={data.revision}
        running={data.document.running_direction ?? null}
        toDocument={() => navigate({ to: '/families/$code', params: { code }, search: revision ? { revision } : {} })}
      />
    </div>
  );
}

interface TurnedProps {
  code: string;
  number: number;
  running: Voice['running'];
  toDocument: () => void;
}

function Turned({ code, number, running, toDocument }: TurnedProps) {
  const voice = useVoice(running);
  const turnRound = useTurnRound();
  return (
    <Twin of={{ code, number }} voice={voice} keys={[{ keys: ['w'], label: 'document', run: toDocument }]}>
      {() => (
        <UnstyledButton className={classes.side} onClick={turnRound}>
          seen from the {voice.seenFrom}
        </UnstyledButton>
      )}
    </Twin>
  );
}
