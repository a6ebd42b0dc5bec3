/** The twin of a family's newest document, as its card has the cams. */
import { UnstyledButton } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearch } from '@tanstack/react-router';
import { Notice, Waiting } from '../app/Notice';
import { useLikings } from '../app/session';
import { useVoice } from '../app/voice';
import { familyQuery } from '../engine/api';
import classes from './FamilyTwin.module.css';
import { Twin } from './Twin';

export function FamilyTwin() {
  const { code } = useParams({ from: '/shell/families/$code/twin' });
  const { revision } = useSearch({ from: '/shell/families/$code/twin' });
  const { data, error, isPending } = useQuery(familyQuery(code, revision));
  useDocumentTitle(`${data?.name ?? code} · twin · Gurvo`);
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  return (
    <div className={classes.page}>
      <nav className={classes.path} aria-label="Where this is">
        <Link to="/families">Families</Link> ›{' '}
        <Link to="/families/$code" params={{ code }}>
          {data.name}
        </Link>{' '}
        › twin, revision {data.revision}
      </nav>
      <Turned code={code} number={data.revision} running={data.document.running_direction} />
    </div>
  );
}

function Turned({
  code,
  number,
  running,
}: {
  code: string;
  number: number;
  running: 'clockwise' | 'counter-clockwise';
}) {
  const voice = useVoice(running);
  const navigate = useNavigate();
  const like = useLikings();
  return (
    <Twin
      of={{ code, number }}
      voice={voice}
      keys={[{ keys: ['w'], label: 'document', run: () => navigate({ to: '/families/$code', params: { code } }) }]}
    >
      {() => (
        <UnstyledButton
          className={classes.side}
          onClick={() => like({ seen_from: voice.seenFrom === 'front' ? 'flywheel' : 'front' })}
        >
          seen from the {voice.seenFrom}
        </UnstyledButton>
      )}
    </Twin>
  );
}
