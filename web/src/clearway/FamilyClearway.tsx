/** The clearway of a family's document, as its card has the cams. */
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearch } from '@tanstack/react-router';
import { Notice, Waiting } from '../app/Notice';
import { useVoice } from '../app/voice';
import { familyQuery } from '../engine/api';
import classes from '../motion/FamilyTwin.module.css';
import { Clearway } from './Clearway';

export function FamilyClearway() {
  const { code } = useParams({ from: '/shell/families/$code/clearway' });
  const { revision } = useSearch({ from: '/shell/families/$code/clearway' });
  const navigate = useNavigate();
  const { data, error, isPending } = useQuery(familyQuery(code, revision));
  const voice = useVoice(data?.document.running_direction ?? null);
  useDocumentTitle(`${data?.name ?? code} · clearway · Gurvo`);
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  const search = revision ? { revision } : {};
  return (
    <div className={classes.page}>
      <nav className={classes.path} aria-label="Where this is">
        <Link to="/families">Families</Link> ›{' '}
        <Link to="/families/$code" params={{ code }} search={search}>
          {data.name}
        </Link>{' '}
        › clearway, revision {data.revision}
      </nav>
      <Clearway
        of={{ code, number: data.revision }}
        twin={{ code, number: data.revision }}
        voice={voice}
        keys={[
          { keys: ['w'], label: 'document', run: () => navigate({ to: '/families/$code', params: { code }, search }) },
        ]}
      />
    </div>
  );
}
