/** Everything that measures or pulls to a figure: range, what it can be trusted for, when it is due, what it was used on. */
import { Button, Table, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { gaugesQuery } from './api';
import { GaugeForm } from './GaugeForm';
import { GaugePanel } from './GaugePanel';
import classes from './Gauges.module.css';
import { CALLED, inUnit, KINDS } from './kinds';

type Gauge = Schemas['GaugeOut'];

export function Gauges() {
  const { person } = usePerson();
  const { data, error, isPending, refetch } = useQuery(gaugesQuery);
  const [chosen, setChosen] = useState<string | null>(null);
  const [form, setForm] = useState<string | null>(null);
  if (isPending) return <Waiting what="Fetching the gauges" />;
  if (error)
    return (
      <Notice title="The gauges cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  const isLead = person.role === 'lead';
  const due = data.filter((gauge) => gauge.overdue);
  return (
    <main className={page.page}>
      <header className={classes.head}>
        <div>
          <h1>Gauges</h1>
          <p className={page.lead}>
            What each can be trusted for: the true figure lies within its uncertainty 95 times of 100. Every reading and
            every pull carries the gauge it was made with.
          </p>
        </div>
        {isLead && <Button onClick={() => setForm('')}>Add a gauge</Button>}
      </header>
      {data.length === 0 && (
        <p className={page.lead}>No gauges yet: a wheel and a dial are needed before a cam can be degreed.</p>
      )}
      {due.length > 0 && (
        <p className={classes.due}>
          Due: {due.map((gauge) => gauge.code).join(', ')}. Using one of them asks for a reason.
        </p>
      )}
      {data.length > 0 && (
        <div className={page.sheet}>
          <Table className={`${page.table} ${classes.gauges}`}>
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Gauge</Table.Th>
                <Table.Th>Range</Table.Th>
                <Table.Th>Reads to</Table.Th>
                <Table.Th title="The true figure lies within it 95 times of 100">Uncertainty</Table.Th>
                <Table.Th>Due</Table.Th>
                <Table.Th>Certificate</Table.Th>
                <Table.Th>Pulls since</Table.Th>
              </Table.Tr>
            </Table.Thead>
            {KINDS.map((kind) => (
              <KindRows
                key={kind}
                kind={kind}
                gauges={data.filter((gauge) => gauge.kind === kind)}
                chosen={chosen}
                onChoose={(code) => setChosen(code === chosen ? null : code)}
                {...(isLead ? { onEdit: setForm } : {})}
              />
            ))}
          </Table>
        </div>
      )}
      {form !== null && <GaugeForm gauge={data.find((one) => one.code === form)} onClose={() => setForm(null)} />}
    </main>
  );
}

interface KindRowsProps {
  kind: Gauge['kind'];
  gauges: Gauge[];
  chosen: string | null;
  onChoose: (code: string) => void;
  onEdit?: (code: string) => void;
}

function KindRows({ kind, gauges, chosen, onChoose, onEdit }: KindRowsProps) {
  if (gauges.length === 0) return null;
  return (
    <Table.Tbody>
      <Table.Tr className={classes.kind}>
        <Table.Td colSpan={7}>{CALLED[kind]}</Table.Td>
      </Table.Tr>
      {gauges.map((gauge) => (
        <GaugeRows key={gauge.code} gauge={gauge} isOpen={chosen === gauge.code} onChoose={onChoose} onEdit={onEdit} />
      ))}
    </Table.Tbody>
  );
}

interface GaugeRowsProps {
  gauge: Gauge;
  isOpen: boolean;
  onChoose: (code: string) => void;
  onEdit: ((code: string) => void) | undefined;
}

function GaugeRows({ gauge, isOpen, onChoose, onEdit }: GaugeRowsProps) {
  return (
    <>
      <Table.Tr data-open={isOpen}>
        <Table.Td>
          <UnstyledButton className={classes.name} aria-expanded={isOpen} onClick={() => onChoose(gauge.code)}>
            <b>{gauge.code}</b> {gauge.name}
          </UnstyledButton>
        </Table.Td>
        <Table.Td>{gauge.most == null ? '' : `${gauge.least ?? 0} to ${inUnit(gauge.most, gauge)}`}</Table.Td>
        <Table.Td>{inUnit(gauge.resolution, gauge)}</Table.Td>
        <Table.Td>{inUnit(gauge.expanded_uncertainty, gauge)}</Table.Td>
        <Table.Td className={gauge.overdue ? page.lookHere : ''}>
          {gauge.due ?? 'none'}
          {gauge.overdue && ' · overdue'}
        </Table.Td>
        <Table.Td>{gauge.certificate}</Table.Td>
        <Table.Td>{gauge.pulls > 0 ? gauge.pulls : ''}</Table.Td>
      </Table.Tr>
      {isOpen && (
        <Table.Tr>
          <Table.Td colSpan={7}>
            <GaugePanel gauge={gauge} onEdit={onEdit} />
          </Table.Td>
        </Table.Tr>
      )}
    </>
  );
}
