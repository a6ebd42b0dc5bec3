/** The revisions of a family, and what differs between two of them in plain words. */
import { NativeSelect, Table } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { sayDate } from '../app/times';
import { differenceQuery, documentHref, familyQuery } from './api';
import { Changes } from './Changes';
import classes from './Revisions.module.css';

export function Revisions() {
  const { code } = useParams({ from: '/shell/families/$code/revisions' });
  const { data, error, isPending } = useQuery(familyQuery(code));
  useDocumentTitle(`${data?.name ?? code} · revisions · Gurvo`);
  if (isPending) return <Waiting what="Fetching the revisions" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  return (
    <main className={page.page}>
      <p className={page.lead}>
        <Link to="/families">Families</Link> ›{' '}
        <Link to="/families/$code" params={{ code }}>
          {data.name}
        </Link>
      </p>
      <h1>Revisions of {data.name}</h1>
      <p className={page.lead}>
        None is ever changed; an engine stays on its own until the lead moves it, with a reason.
      </p>
      <div className={page.sheet}>
        <Table className={page.table}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Revision</Table.Th>
              <Table.Th>Taken in</Table.Th>
              <Table.Th>By</Table.Th>
              <Table.Th>Why</Table.Th>
              <Table.Th>Engines</Table.Th>
              <Table.Td />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.revisions.map((row) => (
              <Table.Tr key={row.number}>
                <Table.Td>
                  <Link to="/families/$code" params={{ code }} search={{ revision: row.number }}>
                    {row.number}
                  </Link>
                </Table.Td>
                <Table.Td>{sayDate(row.at)}</Table.Td>
                <Table.Td>{row.by}</Table.Td>
                <Table.Td>{row.remark}</Table.Td>
                <Table.Td>{row.engines}</Table.Td>
                <Table.Td>
                  <a href={documentHref(code, row.number)}>export</a>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
      {data.revisions.length > 1 ? (
        <Compare code={code} revisions={data.revisions} />
      ) : (
        <p className={page.lead}>There is one revision so far; with a second, what differs is said here.</p>
      )}
    </main>
  );
}

function Compare({ code, revisions }: { code: string; revisions: Schemas['RevisionRow'][] }) {
  const [before, setBefore] = useState(revisions[1]?.number ?? 1);
  const [after, setAfter] = useState(revisions[0]?.number ?? 1);
  const { data, error } = useQuery(differenceQuery(code, before, after));
  const choices = revisions.map((row) => ({ value: String(row.number), label: `revision ${row.number}` }));
  return (
    <section className={classes.compare}>
      <h2>What differs</h2>
      <div className={classes.two}>
        <NativeSelect
          label="From"
          value={before}
          data={choices}
          onChange={(event) => setBefore(Number(event.currentTarget.value))}
        />
        <NativeSelect
          label="To"
          value={after}
          data={choices}
          onChange={(event) => setAfter(Number(event.currentTarget.value))}
        />
      </div>
      {before === after && <p>Choose two different revisions.</p>}
      {error && <p role="alert">{error.message}</p>}
      {data && <Changes changes={data} />}
    </section>
  );
}
