/** Parts that come in sizes: what lies there, what engines have taken, what is free. Whoever counts the shelf types what lies there. */
import { Button, Table, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { type FormEvent, useState } from 'react';
import { isNow } from '../api/again';
import { client, type Schemas, sentenceOf, unwrap } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { stockQuery } from './api';
import classes from './Stock.module.css';

type Row = Schemas['StockOut'];
const EMPTY = { part: '', size: '', lot: '', free: '' };

export function Stock() {
  const { person } = usePerson();
  const { data, error, isPending, refetch } = useQuery(stockQuery);
  const [draft, setDraft] = useState(EMPTY);
  if (isPending) return <Waiting what="Fetching the stock" />;
  if (error)
    return (
      <Notice title="The stock cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  const parts = [...new Set(data.map((row) => row.part))];
  return (
    <main className={page.page}>
      <h1>Stock</h1>
      <p className={page.lead}>
        Parts that are chosen by size. What an engine has been given is taken from here at once, so that no two are
        planned with the same piece.
      </p>
      {person.role !== 'viewer' && <CountForm draft={draft} onChange={setDraft} />}
      {data.length === 0 && <p className={page.lead}>Nothing is in stock yet: type the first size above.</p>}
      {parts.map((part) => (
        <PartTable
          key={part}
          part={part}
          rows={data.filter((row) => row.part === part)}
          onCount={(row) =>
            setDraft({ part: row.part, size: row.size, lot: row.lots[0] ?? '', free: String(row.free) })
          }
        />
      ))}
    </main>
  );
}

function PartTable({ part, rows, onCount }: { part: string; rows: Row[]; onCount: (row: Row) => void }) {
  return (
    <section className={page.sheet}>
      <h2 className={classes.part}>{part}</h2>
      <Table className={`${page.table} ${classes.sizes}`}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Size</Table.Th>
            <Table.Th>Free</Table.Th>
            <Table.Th>Came in</Table.Th>
            <Table.Th>Taken for</Table.Th>
            <Table.Th>Lots</Table.Th>
            <Table.Th />
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.map((row) => (
            <Table.Tr key={row.size}>
              <Table.Td>
                <b>{row.size}</b>
              </Table.Td>
              <Table.Td className={row.free <= 0 ? page.lookHere : ''}>{row.free}</Table.Td>
              <Table.Td>{row.count}</Table.Td>
              <Table.Td>
                {row.taken.map((one) => (
                  <Link key={one.serial} to="/bench/$serial" params={{ serial: one.serial }} className={classes.engine}>
                    {one.serial}: {one.pieces}
                  </Link>
                ))}
              </Table.Td>
              <Table.Td>{row.lots.join(', ')}</Table.Td>
              <Table.Td>
                <Button variant="default" onClick={() => onCount(row)}>
                  Count
                </Button>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </section>
  );
}

function CountForm({ draft, onChange }: { draft: typeof EMPTY; onChange: (draft: typeof EMPTY) => void }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const free = Number(draft.free);
    if (!Number.isInteger(free) || free < 0 || draft.free.trim() === '') {
      setWrong('Free is a whole number of pieces, 0 or more.');
      return;
    }
    try {
      const body = { part: draft.part.trim(), size: draft.size.trim(), lot: draft.lot.trim(), free };
      isNow(queries, stockQuery.queryKey, unwrap(await client.PUT('/api/stock', { body })));
      setWrong('');
      onChange({ ...EMPTY, part: draft.part });
    } catch (problem) {
      setWrong(sentenceOf(problem));
    }
  };
  const field = (key: keyof typeof EMPTY, label: string) => (
    <TextInput
      label={label}
      value={draft[key]}
      inputMode={key === 'free' ? 'numeric' : 'text'}
      onChange={(event) => onChange({ ...draft, [key]: event.currentTarget.value.slice(0, key === 'part' ? 120 : 24) })}
    />
  );
  return (
    <form className={classes.count} onSubmit={submit}>
      {field('part', 'Part')}
      {field('size', 'Size')}
      {field('lot', 'Lot')}
      {field('free', 'Free on the shelf')}
      <Button type="submit" disabled={!draft.part.trim() || !draft.size.trim()}>
        Keep the count
      </Button>
      {wrong && <p role="alert">{wrong}</p>}
    </form>
  );
}
