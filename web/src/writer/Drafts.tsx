/** Engines that are being described, and where another one begins: from nothing, from a family, from a file. */
import { Button, FileButton, Table, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import page from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { sayWhen } from '../app/times';
import { draftsQuery, usePutAway } from './api';
import { useBegin } from './begin';
import classes from './Drafts.module.css';

export function Drafts() {
  const { person } = usePerson();
  const { data } = useQuery(draftsQuery);
  const { begin, fromFile, wrong } = useBegin();
  const putAway = usePutAway();
  const [withAway, setWithAway] = useState(false);
  const open = (data ?? []).filter((draft) => draft.handed_in === null && (withAway || !draft.put_away));
  const away = (data ?? []).filter((draft) => draft.handed_in === null && draft.put_away).length;
  const isLead = person.role === 'lead';
  if (!isLead && open.length === 0) return null;
  return (
    <section className={classes.drafts} aria-label="Being described">
      <div className={classes.begin}>
        <h2>Being described</h2>
        {isLead && (
          <>
            <FileButton onChange={(file) => void fromFile(file)} accept=".json,.json5,application/json,text/plain">
              {(props) => (
                <Button variant="default" {...props}>
                  From a file
                </Button>
              )}
            </FileButton>
            <Button onClick={() => void begin({})}>Describe an engine</Button>
          </>
        )}
      </div>
      {wrong && <p role="alert">{wrong}</p>}
      {open.length > 0 && (
        <div className={page.sheet}>
          <Table className={page.table}>
            <Table.Tbody>
              {open.map((draft) => (
                <Table.Tr key={draft.id}>
                  <Table.Td>
                    <Link to="/drafts/$id" params={{ id: draft.id }} search={{}}>
                      {draft.name}
                    </Link>
                  </Table.Td>
                  <Table.Td>begun from {draft.begun_from}</Table.Td>
                  <Table.Td>{draft.by}</Table.Td>
                  <Table.Td>{draft.edits} edits</Table.Td>
                  <Table.Td>{sayWhen(draft.changed_at)}</Table.Td>
                  <Table.Td>
                    {isLead && (
                      <UnstyledButton
                        className={classes.away}
                        onClick={() => void putAway(draft.id, !draft.put_away)}
                        aria-label={`${draft.put_away ? 'Take out again' : 'Put away'}: ${draft.name}`}
                      >
                        {draft.put_away ? 'take out again' : 'put away'}
                      </UnstyledButton>
                    )}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      )}
      {open.length === 0 && (
        <p className={page.lead}>
          No book is needed, and no JSON: what is on the crank's nose, what it passes, how it is known to stand right.
        </p>
      )}
      {away > 0 && (
        <UnstyledButton className={classes.away} onClick={() => setWithAway(!withAway)}>
          {withAway ? 'without those put away' : `${away} put away`}
        </UnstyledButton>
      )}
    </section>
  );
}
