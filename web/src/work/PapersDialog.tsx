/** Every paper and file of an engine in one place: what is handed over, what hangs in the shop, tables for others. */
import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client';
import { tablesQuery } from './api';
import classes from './Dialog.module.css';
import { PrintRecord } from './PrintRecord';

const PAPERS = [
  {
    title: 'Handed over',
    papers: [
      ['record.pdf', 'The record', 'on paper, the first page for whoever pays'],
      ['record.html', 'The same as one page', 'opens in any browser, pictures within'],
      ['record.zip', 'All of it in one file', 'record, paper, pictures, tables, and a page that verifies them'],
      ['record.json', 'The sealed record', 'JSON, can be verified anywhere'],
      ['first-start.pdf', 'First-start card', 'goes with the engine'],
    ],
  },
  {
    title: 'In the shop',
    papers: [
      ['run.pdf', 'Check sheet', 'every step with its torques and tools, boxes filled from what stands'],
      ['stand-card.pdf', 'Card for the stand', 'its code leads to this bench'],
      ['parts-tags.pdf', 'Tags for trays', 'parts that go back, and blank ones'],
      ['labels.pdf', 'Labels', 'one for each place of parts that go back'],
      ['labels.pdf?small=true', 'Small labels', 'the same, one a page for a roll'],
    ],
  },
] as const;
const READINGS = ['readings.csv', 'Readings of the wheel', 'CSV'] as const;

interface PapersDialogProps {
  engine: Schemas['EngineHead'];
  entries: number;
  opened: boolean;
  onClose: () => void;
}

/** What grows with the ledger, and may take a while. */
const isRecord = (file: string) => file === 'record.pdf' || file === 'record.html' || file === 'record.zip';

export function PapersDialog({ engine, entries, opened, onClose }: PapersDialogProps) {
  const tables = useQuery({ ...tablesQuery(engine.serial), enabled: opened }).data ?? [];
  const own = tables.map(
    (one) => [`${one.name}.csv`, one.title, `CSV, ${one.rows} row${one.rows > 1 ? 's' : ''}`] as const,
  );
  const groups = [...PAPERS, { title: 'Tables', papers: [READINGS, ...own] }];
  return (
    <Modal opened={opened} onClose={onClose} title={`Papers of ${engine.serial}`} size="lg">
      <div className={classes.papers}>
        {groups.map(({ title, papers }) => (
          <section key={title}>
            <h3>{title}</h3>
            <ul>
              {papers.map(([file, name, about]) => (
                <li key={file}>
                  {isRecord(file) ? (
                    <PrintRecord {...{ serial: engine.serial, entries, file, name }} />
                  ) : (
                    <a href={`/api/engines/${engine.serial}/${file}`}>{name}</a>
                  )}{' '}
                  <small>{about}</small>
                </li>
              ))}
            </ul>
          </section>
        ))}
        <Link to="/families/$code/back" params={{ code: engine.family_code }} search={{ serial: engine.serial }}>
          Look back over all engines of the family
        </Link>
      </div>
    </Modal>
  );
}
