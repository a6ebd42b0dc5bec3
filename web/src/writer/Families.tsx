/** The engine documents the shop builds from. */
import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { Notice, Waiting } from '../app/Notice';
import classes from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { familiesQuery } from '../engine/api';
import { Drafts } from './Drafts';
import { SmallFront } from './SmallFront';

export function Families() {
  const { data, error, isPending, refetch } = useQuery(familiesQuery);
  const { person } = usePerson();
  if (isPending) return <Waiting what="Fetching the families" />;
  if (error)
    return (
      <Notice title="The families cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  if (data.length === 0)
    return (
      <main className={classes.page}>
        <h1>Families</h1>
        <p className={classes.lead}>
          None yet: an engine is described once, and built from then on. Whoever has a document may also{' '}
          <Link to="/import">take it in</Link>.
        </p>
        <Drafts />
      </main>
    );
  return (
    <main className={classes.page}>
      <h1>Families</h1>
      <p className={classes.lead}>
        Each engine stays on the document revision it was begun with, until the lead moves it.{' '}
        <Link to="/import">{person.role === 'lead' ? 'Check or take in a document' : 'Check a document'}</Link>
      </p>
      <Drafts />
      <div className={classes.sheet}>
        <Table className={classes.table}>
          <Table.Thead>
            <Table.Tr>
              <Table.Td />
              <Table.Th>Family</Table.Th>
              <Table.Th>Layout</Table.Th>
              <Table.Th>Fuel</Table.Th>
              <Table.Th>Revision</Table.Th>
              <Table.Th>Engines</Table.Th>
              <Table.Td />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.map((family) => (
              <Table.Tr key={family.code}>
                <Table.Td className={classes.narrow}>
                  <SmallFront code={family.code} number={family.revision} />
                </Table.Td>
                <Table.Td>
                  <Link to="/families/$code" params={{ code: family.code }}>
                    {family.name}
                  </Link>
                </Table.Td>
                <Table.Td>{family.layout}</Table.Td>
                <Table.Td>{family.fuel}</Table.Td>
                <Table.Td>{family.revision}</Table.Td>
                <Table.Td>{family.engines}</Table.Td>
                <Table.Td>
                  <Link to="/families/$code/twin" params={{ code: family.code }} aria-label={`Twin of ${family.name}`}>
                    twin
                  </Link>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
    </main>
  );
}
