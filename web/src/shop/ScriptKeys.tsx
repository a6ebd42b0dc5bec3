/** Keys for a person's own programs: one more, told once; which there are; one taken back. */
import { Button, Table, TextInput } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { sentenceOf } from '../api/client';
import classes from '../app/Page.module.css';
import { sayDay, sayMoment } from '../app/times';
import { scriptKeysQuery, useScriptKeys } from './api';
import own from './People.module.css';

export function ScriptKeys() {
  useDocumentTitle('Keys for programs · Gurvo');
  const keys = useQuery(scriptKeysQuery).data ?? [];
  const { make, takeBack } = useScriptKeys();
  const [name, setName] = useState('');
  const wrong = make.error ?? takeBack.error;
  const onMake = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) make.mutate(name, { onSuccess: () => setName('') });
  };
  return (
    <main className={classes.page}>
      <h1>Keys for programs</h1>
      <p className={classes.lead}>
        A program that shows one does what you may do, but signs nothing and changes no people. Take one back, and it
        opens nothing. <a href="/api/docs">What it can ask, door by door</a>.
      </p>
      <section className={`${classes.sheet} ${own.choice}`} aria-label="One more key">
        <form className={own.secret} onSubmit={onMake}>
          <TextInput
            label="What it is for"
            placeholder="torque reports"
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" loading={make.isPending} disabled={!name.trim()}>
            Make a key
          </Button>
        </form>
        {make.data && (
          <p role="status" className={own.once}>
            Copy it now, it is not shown again: <code>{make.data.secret}</code>
          </p>
        )}
        {wrong && <p role="alert">{sentenceOf(wrong)}</p>}
      </section>
      {keys.length > 0 && (
        <div className={`${classes.sheet} ${own.listed}`}>
          <Table className={classes.table}>
            <Table.Thead>
              <Table.Tr>
                {['For', 'Made', 'Used last', ''].map((label) => (
                  <Table.Th key={label}>{label}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {keys.map((key) => (
                <Table.Tr key={key.id}>
                  <Table.Td>
                    <b>{key.name}</b>
                  </Table.Td>
                  <Table.Td>{sayMoment(key.made_at)}</Table.Td>
                  <Table.Td>{key.used_on ? sayDay(key.used_on) : 'not yet'}</Table.Td>
                  <Table.Td className={own.actions}>
                    <Button variant="default" onClick={() => takeBack.mutate(key.id)}>
                      Take back
                    </Button>
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      )}
    </main>
  );
}
