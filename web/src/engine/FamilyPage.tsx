/** One engine document: what the engine is, its cam card, its drive, what can be moved, the shape of its lobes. */
import { Button, Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { documentHref, familyQuery } from './api';
import classes from './FamilyPage.module.css';
import { LobeDrawing } from './LobeDrawing';

type Document = Schemas['EngineDocument'];

export function FamilyPage({ code }: { code: string }) {
  const { data, error, isPending } = useQuery(familyQuery(code));
  const navigate = useNavigate();
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  const { document } = data;
  const toTwin = () => navigate({ to: '/families/$code/twin', params: { code } });
  return (
    <>
      <main className={page.page}>
        <p className={page.lead}>
          <Link to="/families">Families</Link>
        </p>
        <div className={classes.head}>
          <div>
            <h1>{data.name}</h1>
            <p className={page.lead}>
              {[document.identity.layout, document.identity.fuel].join(', ')}. {document.identity.variant}.{' '}
              <Link to="/families/$code/revisions" params={{ code }}>
                Revision {data.revision}
              </Link>
            </p>
          </div>
          <div className={classes.doors}>
            <Button onClick={toTwin}>Turn the twin</Button>
            <Button component="a" href={documentHref(code, data.revision)} variant="default">
              Export
            </Button>
          </div>
        </div>
        <div className={classes.parts}>
          <Part title="Crank and rods">
            <Facts facts={crankFacts(document)} />
          </Part>
          <Part title="Cam card">
            <CardTable document={document} />
          </Part>
          <Part title="Drive">
            <Facts facts={driveFacts(document)} />
          </Part>
          <Part title="What can be moved">
            {document.adjustments.length ? (
              <Facts facts={document.adjustments.map((one) => [one.name, places(one)])} />
            ) : (
              <p className={page.lead}>Nothing; the marks decide.</p>
            )}
          </Part>
          <Part title="Lobes" wide>
            <div className={classes.lobes}>
              {data.curves.map((curve) => (
                <LobeDrawing key={curve.id} curve={curve} />
              ))}
            </div>
          </Part>
          {document.joints.length > 0 && (
            <Part title="Joints">
              <Facts
                facts={document.joints.map((one) => [
                  `${one.name}, ${one.fasteners} × ${one.thread}`,
                  one.stages.join(' · '),
                ])}
              />
            </Part>
          )}
          {document.stages.length > 0 && (
            <Part title="Stages of work" wide>
              <Facts facts={document.stages.map((one) => [one.title, one.steps.join(' · ')])} />
            </Part>
          )}
        </div>
      </main>
      <KeyStrip actions={[{ keys: ['w'], label: 'twin', run: toTwin }]} />
    </>
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

function crankFacts(document: Document): [string, string][] {
  const banks = document.banks.map((bank): [string, string] => [
    document.banks.length > 1 ? `${bank.name}, cylinders ${bank.cylinders.join(', ')}` : 'Bore, stroke, rod',
    `${bank.cranktrain.bore_mm} × ${bank.cranktrain.stroke_mm}, rod ${bank.cranktrain.rod_mm} mm`,
  ]);
  const offset = document.banks[0]?.cranktrain.pin_offset_mm ?? 0;
  return [
    ...banks,
    ['Pin offset', `${offset} mm`],
    ['Firing order', document.firing_order.join(' - ')],
    ['Runs', `${document.running_direction}, seen from the front`],
    ['Wheel is set to', `cylinder ${document.reference_cylinder}`],
    ...document.timing_positions.map((one): [string, string] => ['Timing position', one.name]),
  ];
}

function driveFacts(document: Document): [string, string][] {
  return document.drive.stages.map((stage) => {
    if (stage.kind === 'gears') return [stage.name, `gears, module ${stage.module_mm}`];
    const what = stage.kind === 'chain' ? 'links' : 'teeth';
    const tensioner = stage.tensioner ? ` · ${stage.tensioner.name}` : '';
    return [stage.name, `${stage.count} ${what}, pitch ${stage.pitch_mm} mm${tensioner}`];
  });
}

/** A figure of the card; a negative one lies on the other side. */
function event(deg: number, side: 'before' | 'after', centre: string): string {
  const other = side === 'before' ? 'after' : 'before';
  return `${Math.abs(deg)}° ${deg < 0 ? other : side} ${centre}`;
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
          <Table.Tr key={`${line.camshaft} ${line.valve} ${line.cylinder} ${line.lift_mm}`}>
            <Table.Td>
              {line.valve}
              {line.cylinder != null && ` of ${line.cylinder}`}
            </Table.Td>
            <Table.Td>{line.lift_mm.toFixed(2)} mm</Table.Td>
            <Table.Td>{event(line.opens_deg, 'before', line.valve === 'intake' ? 'TDC' : 'BDC')}</Table.Td>
            <Table.Td>{event(line.closes_deg, 'after', line.valve === 'intake' ? 'BDC' : 'TDC')}</Table.Td>
            <Table.Td>± {line.tolerance_deg}°</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

/** The places an adjustment has, as its document says them. */
function places(adjustment: Document['adjustments'][number]): string {
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
