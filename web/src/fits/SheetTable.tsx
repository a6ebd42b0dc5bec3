/** All readings of a fit, a row a place, a column a spot; the one that is read now is marked. */
import type { Schemas } from '../api/client';
import { sayFine, type Voice } from '../app/saying';
import type { Question } from '../ledger/contract';
import classes from './FitDrawing.module.css';

const AXES: Record<string, string> = { up: '↕', across: '↔' };

type Sheet = Schemas['FitSheet'];

interface SheetTableProps {
  sheet: Sheet;
  question: Question | undefined;
  voice: Voice;
}

export function SheetTable({ sheet, question, voice }: SheetTableProps) {
  const now = question?.kind === 'fit_reading' ? question : null;
  const isNow = (place: string, column: Sheet['columns'][number]) =>
    now !== null &&
    now.place === place &&
    now.side === column.side &&
    now.plane === column.plane &&
    now.axis === column.axis;
  return (
    <div className={classes.sheet}>
      <table>
        <thead>
          <tr>
            <th />
            {sheet.fit.sides.map((side) => (
              <th
                key={side.key}
                className={classes.side}
                colSpan={sheet.columns.filter((one) => one.side === side.key).length}
              >
                {side.name}
              </th>
            ))}
          </tr>
          <tr>
            <th />
            {sheet.columns.map((column) => (
              <th key={column.label}>
                {column.plane} {AXES[column.axis] ?? column.axis}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sheet.lines.map((line) => (
            <tr key={line.place}>
              <th>{line.place === 'it' ? '' : line.place.replace(/^(main|rod|cylinder) /, '')}</th>
              {line.cells.map((cell, n) => {
                const column = sheet.columns[n];
                if (!column) return null;
                return (
                  <td key={column.label} data-now={isNow(line.place, column)}>
                    {cell ? sayFine(cell.size_mm, voice.factor).split(' ')[0] : isNow(line.place, column) ? 'now' : ''}
                    {cell && cell.count > 1 && <small>×{cell.count}</small>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
