/** Joints, clearances, parts, tools, a lobe's lift as a table: pasted from a spreadsheet, or a line each; what cannot be read is said at its cell. */
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
    kind: 'lash',
    name: 'Valve clearances',
    columns: ['valves', 'clearance, how it is set'],
    example: 'intake; 0.15-0.20 by screw',
  },
  {
    kind: 'kit',
    name: 'Parts',
    columns: ['name', 'how many', 'new, or goes back', 'lubricant'],
    example: 'followers; 8; goes back; assembly lube',
  },
  {
    kind: 'tools',
    name: 'Tools',
    columns: ['step', 'tools at hand for it'],
    example: 'Head bolts; angle gauge, long bar',
  },
  {
    kind: 'profiles',
    name: 'A lobe’s lift',
    columns: ['cam degrees', 'lift, mm'],
    example: 'intake lobe\n-70; 0\n-60; 0.05',
  },
];
const QUIET_MS = 250;
const SHOWN = 60;

export function Tables({ draft, writing, common }: TablesProps) {
  const [kept, change, forget] = useDraft(`writer.${draft.id}.table`, { kind: 'joints', text: '' });
  const sort = SORTS.find((one) => one.kind === kept.kind) ?? (SORTS[0] as Sort);
  const [text] = useDebouncedValue(kept.text, QUIET_MS);
  const rows = useQuery(rowsQuery(draft.id, draft.changes, sort.kind, text));
  const table = text.trim() === '' ? undefined : rows.data;
  const read = table?.rows ?? [];
  const sound = read.length > 0 && table?.wrong === '' && text === kept.text;
  const wrong = read.filter((row) => row.wrong !== '');
  const shown = read.length > SHOWN && wrong.length > 0 ? wrong.slice(0, SHOWN) : read.slice(0, SHOWN);
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
        {table?.said.map((one) => (
          <p key={one} className={classes.hint}>
            {one}
          </p>
        ))}
        {table?.wrong && read.every((row) => row.wrong === '') && <p role="alert">{table.wrong}</p>}
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
              {shown.map((row) => (
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
        {read.length > shown.length && <p className={classes.hint}>and {read.length - shown.length} more</p>}
        {draft.may_write && read.length > 0 && (
          <div className={classes.foot}>
            <p>
              {wrong.length > 0
                ? 'A row that cannot be read holds back all of them: put it right, or leave it out.'
                : ''}
            </p>
            <Button disabled={!sound} onClick={put}>
              Put {sort.kind === 'profiles' ? 'it' : read.length} in
            </Button>
          </div>
        )}
      </div>
    </Screen>
  );
}
