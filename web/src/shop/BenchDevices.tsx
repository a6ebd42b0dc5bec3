/** Tablets and telephones that stay at a bench: which are paired, one more, one that is so no longer. */
import { Button, Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { sentenceOf } from '../api/client';
import classes from '../app/Page.module.css';
import { sayMoment } from '../app/times';
import { benchDevicesQuery, useUnpair } from '../first/api';
import { PairingCode } from '../first/PairingCode';
import own from './People.module.css';

export function BenchDevices() {
  const devices = useQuery(benchDevicesQuery).data ?? [];
  const [isAdding, setAdding] = useState(false);
  const unpair = useUnpair();
  return (
    <section className={`${classes.sheet} ${own.choice}`} aria-label="Devices at the benches">
      <h2 className={own.heading}>Devices at the benches</h2>
      <p className={own.soft}>A paired one asks for a name and a PIN. Unpair one that is lost, at once.</p>
      {devices.length > 0 && (
        <Table className={classes.table}>
          <Table.Tbody>
            {devices.map((one) => (
              <Table.Tr key={one.id}>
                <Table.Td>
                  <b>{one.name}</b>
                </Table.Td>
                <Table.Td>
                  paired by {one.by_name}, {sayMoment(one.paired_at)}
                </Table.Td>
                <Table.Td>
                  {one.used_at ? `somebody was there ${sayMoment(one.used_at)}` : 'nobody was there yet'}
                </Table.Td>
                <Table.Td className={own.actions}>
                  <Button variant="default" onClick={() => unpair.mutate(one.id)}>
                    Unpair
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {unpair.error && <p role="alert">{sentenceOf(unpair.error)}</p>}
      {isAdding ? (
        <PairingCode name={`bench ${devices.length + 1}`} />
      ) : (
        <Button variant="default" onClick={() => setAdding(true)}>
          Pair a device
        </Button>
      )}
    </section>
  );
}
