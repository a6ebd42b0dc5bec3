/** One engine document, to look at: what the engine is, its cam card, what can be moved, the shape of its lobes. */
import { Table } from '@mantine/core';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import { client, type Schemas, unwrap } from '../api/client';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import classes from './FamilyPage.module.css';
import { LobeDrawing } from './LobeDrawing';

type Document = Schemas['EngineDocument'];

const familyQuery = (code: string) =>
  queryOptions({
    queryKey: ['families', code],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/api/families/{code}', { params: { path: { code } }, signal })),
  });

export function FamilyPage({ code }: { code: string }) {
  const { data, error, isPending } = useQuery(familyQuery(code));
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  const { document } = data;
  return (
    <main className={page.page}>
      <p className={page.lead}>
        <Link to="/families">Families</Link>
      </p>
      <h1>{data.name}</h1>
      <p className={page.lead}>
        {document.identity.layout}, {document.identity.fuel}. {document.identity.variant}. Revision {data.revision}.
      </p>
      <div className={classes.parts}>
        <Part title="Crank and rods">
          <Facts facts={facts(document)} />
        </Part>
        <Part title="Cam card">
          <CardTable document={document} />
        </Part>
        <Part title="What can be moved">
          <Facts facts={document.adjustments?.map((one) => [one.name, places(one)]) ?? []} />
        </Part>
        <Part title="Lobes" wide>
          <div className={classes.lobes}>
            {document.profiles.map((profile) => (
              <LobeDrawing key={profile.id} profile={profile} />
            ))}
          </div>
        </Part>
      </div>
    </main>
  );
}

function Part({ title, children, wide }: { title: string; children: ReactNode; wide?: boolean }) {
  return (
    <section className={classes.part} data-wide={wide}>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function Facts({ facts: list }: { facts: [string, string][] }) {
  return (
    <dl className={classes.facts}>
      {list.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function facts(document: Document): [string, string][] {
  const train = document.cranktrain;
  return [
    ['Bore and stroke', `${train.bore_mm} × ${train.stroke_mm} mm`],
    ['Rod, centre to centre', `${train.rod_mm} mm`],
    ['Pin offset', `${train.pin_offset_mm} mm`],
    ['Firing order', document.firing_order.join(' - ')],
    ['Runs', `${document.running_direction}, seen from the front`],
    ['Wheel is set to', `cylinder ${document.reference_cylinder}`],
  ];
}

function CardTable({ document }: { document: Document }) {
  return (
    <Table className={page.table}>
      <Table.Thead>
        <Table.Tr>
          <Table.Th>Valve</Table.Th>
          <Table.Th>At</Table.Th>
          <Table.Th>Opens</Table.Th>
          <Table.Th>Closes</Table.Th>
          <Table.Th>Tolerance</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {document.cam_card.map((line) => (
          <Table.Tr key={`${line.camshaft} ${line.valve} ${line.lift_mm}`}>
            <Table.Td>{line.valve}</Table.Td>
            <Table.Td>{line.lift_mm.toFixed(2)} mm</Table.Td>
            <Table.Td>
              {line.opens_deg}° before {line.valve === 'intake' ? 'TDC' : 'BDC'}
            </Table.Td>
            <Table.Td>
              {line.closes_deg}° after {line.valve === 'intake' ? 'BDC' : 'TDC'}
            </Table.Td>
            <Table.Td>± {line.tolerance_deg}°</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

/** The places an adjustment has, as its document says them. */
function places(adjustment: NonNullable<Document['adjustments']>[number]): string {
  switch (adjustment.kind) {
    case 'key_slots':
      return adjustment.slots.map((slot) => slot.name).join(', ');
    case 'offset_bushes':
      return adjustment.bushes.map((bush) => bush.name).join(', ');
    case 'hole_circles':
      return `${adjustment.cam_holes} and ${adjustment.sprocket_holes} holes`;
    case 'slotted_sprocket':
      return `± ${adjustment.range_deg}°, any place`;
    case 'sprocket_teeth':
      return `${adjustment.teeth} teeth`;
  }
}
