/** One engine document: what the engine is, its cam card, its drive, what can be moved, the shape of its lobes. */
import { Button, Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearch } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import { Notice, Waiting } from '../app/Notice';
import page from '../app/Page.module.css';
import { FamilyScene } from '../scene/FamilyScene';
import { BeginFrom } from '../writer/BeginFrom';
import { documentHref, familyQuery } from './api';
import classes from './FamilyPage.module.css';
import {
  crankFacts,
  driveFacts,
  type Fact,
  holdingFacts,
  jointFacts,
  kitFacts,
  limitFacts,
  moveFacts,
  runFacts,
  thingFacts,
  variantFacts,
} from './facts';
import { JointOrders } from './JointOrders';
import { LeftOpen } from './LeftOpen';
import { LobeDrawing } from './LobeDrawing';

type Document = Schemas['EngineDocument'];

export function FamilyPage() {
  const { code } = useParams({ from: '/shell/families/$code' });
  const { revision } = useSearch({ from: '/shell/families/$code' });
  const { data, error, isPending } = useQuery(familyQuery(code, revision));
  const navigate = useNavigate();
  if (isPending) return <Waiting what="Fetching the document" />;
  if (error) return <Notice title={`${code} cannot be shown`}>{error.message}</Notice>;
  const { document } = data;
  const toTwin = () => navigate({ to: '/families/$code/twin', params: { code }, search: revision ? { revision } : {} });
  const toClearway = () =>
    navigate({ to: '/families/$code/clearway', params: { code }, search: revision ? { revision } : {} });
  const newest = data.revisions[0]?.number ?? data.revision;
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
              {[document.identity.layout, document.identity.fuel].join(', ')}.{' '}
              {document.identity.variant && `${document.identity.variant}. `}
              <Link to="/families/$code/revisions" params={{ code }}>
                Revision {data.revision}
                {newest > data.revision && `, not the newest: that is ${newest}`}
              </Link>
            </p>
          </div>
          <div className={classes.doors}>
            <Button onClick={toTwin}>Turn the twin</Button>
            <Button variant="default" onClick={toClearway}>
              What may meet
            </Button>
            <Button variant="default" onClick={() => void navigate({ to: '/families/$code/back', params: { code } })}>
              Look back
            </Button>
            <BeginFrom from={{ family: code }} label="Describe its next revision" />
            <Button component="a" href={documentHref(code, data.revision)} variant="default">
              Export
            </Button>
          </div>
        </div>
        <LeftOpen title="Doubtful" sentences={data.doubtful} />
        <LeftOpen title="Not known, so not checked" sentences={data.not_known} />
        <div className={classes.parts}>
          <Part title="As it is drawn" wide>
            <FamilyScene code={code} number={data.revision} />
          </Part>
          <Listed title="Crank and rods" facts={crankFacts(document)} />
          {document.cam_card.length > 0 && (
            <Part title="Cam card">
              <CardTable document={document} />
            </Part>
          )}
          <Listed title="Drive" facts={driveFacts(document)} />
          <Listed title="What can be moved" facts={moveFacts(document)} />
          {data.curves.length > 0 && (
            <Part title="Lobes" wide>
              <div className={classes.lobes}>
                {data.curves.map((curve) => (
                  <LobeDrawing key={curve.id} curve={curve} />
                ))}
              </div>
            </Part>
          )}
          <Listed title="Locks and tensioners" facts={holdingFacts(document)} wide />
          {data.joints.length > 0 && (
            <Part title="Joints, bolt by bolt" wide>
              <JointOrders joints={data.joints} />
            </Part>
          )}
          <Listed title="Joints" facts={jointFacts(document)} />
          <Listed title="Fits and lash" facts={limitFacts(document)} />
          <Listed title="On the bench" facts={kitFacts(document)} />
          <Listed title="Variants" facts={variantFacts(document)} />
          <Listed title="On for a while" facts={thingFacts(document)} />
          <Listed title="Run of work" facts={runFacts(document)} wide />
        </div>
      </main>
      <KeyStrip
        actions={[
          { keys: ['w'], label: 'twin', run: toTwin },
          { keys: ['c'], label: 'what may meet', run: toClearway },
        ]}
      />
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

/** A part that is left out when the document says nothing of it. */
function Listed({ title, facts, wide }: { title: string; facts: Fact[]; wide?: boolean }) {
  if (facts.length === 0) return null;
  return (
    <Part title={title} {...(wide ? { wide } : {})}>
      <Facts facts={facts} />
    </Part>
  );
}

function Facts({ facts: list }: { facts: Fact[] }) {
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

/** A figure of the card; a negative one lies on the other side. */
function event(deg: number | null | undefined, side: 'before' | 'after', centre: string): string {
  if (deg == null) return 'not known';
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
            <Table.Td>{line.tolerance_deg == null ? 'not known' : `± ${line.tolerance_deg}°`}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}
