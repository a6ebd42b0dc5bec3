/** Joints, clearances and parts as a table: pasted from a spreadsheet, or a line each; what cannot be read is said at its cell. */
import { Button, Textarea, UnstyledButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import type { KeyAction } from '../app/keys';
import { useDraft } from '../ledger/draft';
import { type Draft, rowsQuery } from './api';
import { Screen } from './Screen';
import classes from './Tables.module.css';
import type { TableKind, Writing } from './writing';

interface TablesProps {
  draft: Draft;
  writing: Writing;
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

interface Sort {
  kind: TableKind;
  name: string;
  columns: string[];
  example: string;
}

const SORTS: Sort[] = [
  {
    kind: 'joints',
    name: 'Joints',
    columns: ['name', 'how many, how they stand', 'how tightened', 'thread'],
    example: 'Sump screws; 14; 10; M6',
  },
  { kind: 'fits', name: 'Clearances', columns: ['name', 'limits', 'read by'], example: 'End float; 0.10-0.25; dial' },
  {
    kind: 'kit',
    name: 'Parts',
    columns: ['name', 'how many', 'new, or goes back', 'lubricant'],
    example: 'followers; 8; goes back; assembly lube',
  },
];
const QUIET_MS = 250;

export function Tables({ draft, writing, common }: TablesProps) {
  const [kept, change, forget] = useDraft(`writer.${draft.id}.table`, { kind: 'joints', text: '' });
  const sort = SORTS.find((one) => one.kind === kept.kind) ?? (SORTS[0] as Sort);
  const [text] = useDebouncedValue(kept.text, QUIET_MS);
  const rows = useQuery(rowsQuery(draft.id, draft.changes, sort.kind, text));
  const read = text.trim() === '' ? [] : (rows.data ?? []);
  const sound = read.length > 0 && read.every((row) => row.wrong === '') && text === kept.text;
  const choose = (one: Sort) => change({ kind: one.kind });
  const put = () =>
    void writing.putTable(sort.kind, kept.text).then((after) => {
      if (after) forget();
    });
  const actions: KeyAction[] = SORTS.map((one, n) => ({
    keys: [String(n + 1)],
    label: one.name.toLowerCase(),
    run: () => choose(one),
  }));
  return (
    <Screen actions={[...actions, ...common]} isLong>
      <div className={classes.tables}>
        <h1>Tables</h1>
        <p className={classes.hint}>
          Paste from a spreadsheet, or write a line each with ; between. Every row is put in as it is shown below, and
          can be undone.
        </p>
        <div className={classes.sorts}>
          {SORTS.map((one, n) => (
            <UnstyledButton key={one.kind} aria-pressed={one === sort} onClick={() => choose(one)}>
              <i>{n + 1}</i> {one.name}
            </UnstyledButton>
          ))}
        </div>
        <Textarea
          label={sort.columns.join(' · ')}
          placeholder={sort.example}
          autosize
          minRows={5}
          maxRows={12}
          spellCheck={false}
          value={kept.text}
          onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.blur()}
          onChange={(event) => {
            writing.forget();
            change({ text: event.currentTarget.value });
          }}
        />
        {(writing.trouble ?? rows.error) && <p role="alert">{writing.trouble?.sentence ?? rows.error?.message}</p>}
        {read.length > 0 && (
          <table className={classes.rows}>
            <thead>
              <tr>
                {sort.columns.map((column) => (
                  <th key={column}>{column}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {read.map((row) => (
                <tr key={row.line} data-wrong={row.wrong !== ''}>
                  {sort.columns.map((column, n) => (
                    <td key={column} data-wrong={row.column === n}>
                      {row.cells[n] ?? ''}
                      {row.column === n && <span>{row.wrong}</span>}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {draft.may_write && read.length > 0 && (
          <div className={classes.foot}>
            <p>{sound ? '' : 'A row that cannot be read holds back all of them: put it right, or leave it out.'}</p>
            <Button disabled={!sound} onClick={put}>
              Put {read.length} in
            </Button>
          </div>
        )}
      </div>
    </Screen>
  );
}
