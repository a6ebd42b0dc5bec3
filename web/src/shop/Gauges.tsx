/** Wheels and dials with what their calibration says. */
import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Notice, Waiting } from '../app/Notice';
import classes from '../app/Page.module.css';
import { gaugesQuery } from './api';

const UNIT = { wheel: '°', dial: ' mm' } as const;

export function Gauges() {
  const { data, error, isPending, refetch } = useQuery(gaugesQuery);
  if (isPending) return <Waiting what="Fetching the gauges" />;
  if (error)
    return (
      <Notice title="The gauges cannot be shown" retry={() => refetch()}>
        {error.message}
      </Notice>
    );
  if (data.length === 0)
    return <Notice title="No gauges yet">A wheel and a dial are needed before a cam can be degreed.</Notice>;
  return (
    <main className={classes.page}>
      <h1>Gauges</h1>
      <p className={classes.lead}>What each can be trusted for. Every reading carries its gauge's uncertainty.</p>
      <div className={classes.sheet}>
        <Table className={classes.table}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Gauge</Table.Th>
              <Table.Th>Reads to</Table.Th>
              <Table.Th>U, k = 2</Table.Th>
              <Table.Th>Calibration due</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.map((gauge) => (
              <Table.Tr key={gauge.code}>
                <Table.Td>
                  <b>{gauge.code}</b> {gauge.name}
                </Table.Td>
                <Table.Td>
                  {gauge.resolution}
                  {UNIT[gauge.kind]}
                </Table.Td>
                <Table.Td>
                  {gauge.expanded_uncertainty}
                  {UNIT[gauge.kind]}
                </Table.Td>
                <Table.Td className={gauge.overdue ? classes.lookHere : ''}>
                  {gauge.due ?? 'none'}
                  {gauge.overdue && ' · overdue'}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
    </main>
  );
}
