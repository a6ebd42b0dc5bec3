/** The people of the shop, for leads: who is there, in which role, who has left, who tried to sign in. */
import { Button, NativeSelect, Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import classes from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { sayMoment } from '../app/times';
import { AddPerson } from './AddPerson';
import { AloneChoice } from './AloneChoice';
import { peopleQuery, usePeopleChanges } from './api';
import { BenchDevices } from './BenchDevices';
import { Letterhead } from './Letterhead';
import { NewSecret, type Secret } from './NewSecret';
import own from './People.module.css';
import { ROLES } from './roles';
import { SignInLog } from './SignInLog';
import { WorkingHours } from './WorkingHours';

type Row = Schemas['PersonRow'];

export function People() {
  const { person } = usePerson();
  const { data, error, isPending, refetch } = useQuery(peopleQuery);
  const changes = usePeopleChanges();
  const [renewed, setRenewed] = useState<{ username: string; secret: Secret } | null>(null);
  if (isPending) return <Waiting what="Fetching the people" />;
  if (error)
    return (
      <Notice title="The people cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  return (
    <main className={classes.page}>
      <h1>People</h1>
      <p className={classes.lead}>What somebody entered stays his for ever, also when he has left.</p>
      {changes.wrong && (
        <p className={own.wrong} role="alert">
          {changes.wrong.message}
        </p>
      )}
      <div className={classes.sheet}>
        <Table className={classes.table}>
          <Table.Thead>
            <Table.Tr>
              {['Name', 'Role', 'Signed in last', ''].map((label) => (
                <Table.Th key={label}>{label}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.map((row) => (
              <PersonLine
                key={row.username}
                row={row}
                isMe={row.username === person.username}
                changes={changes}
                onSecret={(secret) => setRenewed({ username: row.username, secret })}
              />
            ))}
          </Table.Tbody>
        </Table>
      </div>
      <AddPerson changes={changes} />
      <AloneChoice changes={changes} />
      <WorkingHours changes={changes} />
      <BenchDevices />
      <Letterhead />
      <SignInLog />
      {renewed && <NewSecret {...renewed} changes={changes} onClose={() => setRenewed(null)} />}
    </main>
  );
}

interface PersonLineProps {
  row: Row;
  isMe: boolean;
  changes: ReturnType<typeof usePeopleChanges>;
  onSecret: (secret: Secret) => void;
}

function PersonLine({ row, isMe, changes, onSecret }: PersonLineProps) {
  return (
    <Table.Tr className={row.has_left ? own.left : ''}>
      <Table.Td>
        <b>{row.name}</b> {row.username}
        {isMe && ' · you'}
        {row.has_left && ' · has left'}
      </Table.Td>
      <Table.Td>
        <NativeSelect
          aria-label={`Role of ${row.name}`}
          className={own.role}
          data={ROLES}
          value={row.role}
          disabled={row.has_left}
          onChange={(event) => changes.change(row.username, { role: event.currentTarget.value as Row['role'] })}
        />
      </Table.Td>
      <Table.Td>{row.last_signed_in ? sayMoment(row.last_signed_in) : 'never'}</Table.Td>
      <Table.Td className={own.actions}>
        {row.wrong_tries && (
          <Button variant="default" onClick={() => changes.unlock(row.username)}>
            Unlock
          </Button>
        )}
        {!row.has_left && (
          <>
            <Button variant="default" onClick={() => onSecret('password')}>
              New password
            </Button>
            <Button variant="default" onClick={() => onSecret('pin')}>
              {row.has_pin ? 'New PIN' : 'Give a PIN'}
            </Button>
          </>
        )}
        <Button variant="default" onClick={() => changes.change(row.username, { has_left: !row.has_left })}>
          {row.has_left ? 'Is back' : 'Has left'}
        </Button>
      </Table.Td>
    </Table.Tr>
  );
}
