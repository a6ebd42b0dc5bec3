/** Figures that were worked out, each with its formula and where that is from. */
import { Table } from '@mantine/core';
import type { Schemas } from '../api/client';
import page from './Page.module.css';
import classes from './Workings.module.css';

export function WorkedLines({ lines, label }: { lines: Schemas['Line'][]; label: string }) {
  return (
    <div className={page.sheet}>
      <Table className={page.table} aria-label={label}>
        <Table.Tbody>
          {lines.map((line) => (
            <Table.Tr key={line.name}>
              <Table.Td>{line.name}</Table.Td>
              <Table.Td className={line.look_again ? page.lookHere : ''}>
                <b>{line.value}</b>
              </Table.Td>
              <Table.Td className={classes.soft}>
                {line.formula}
                <small>{line.source}</small>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </div>
  );
}
