/** Which shim goes where: the engine's own moved about first, then stock, then to buy; any of them may be changed. */
import { Button, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { say, sayFine } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { shimsQuery } from '../api';
import classes from './lash.module.css';

type Row = Schemas['ShimRow'];

/** As it is marked: to a hundredth, or to a thousandth where it has one. */
const thick = (mm: number) => mm.toFixed(3).replace(/0$/, '');

export function ShimsInput({ bench, question, voice, wrong, busy, answer }: InputProps<QuestionOf<'lash_shims'>>) {
  const { data, error } = useQuery(shimsQuery(bench.engine.serial, question.step, bench.entries));
  const [draft, change, forget] = useDraft<{ shims: Record<string, string>; lot: string }>(
    `${bench.engine.serial}.${question.key}`,
    { shims: {}, lot: '' },
  );
  const rows = data?.rows ?? [];
  const shimOf = (row: Row) => draft.shims[row.valve] ?? thick(row.shim_mm);
  const record = async () => {
    if (busy || rows.length === 0 || question.blocked) return;
    const shims = Object.fromEntries(rows.map((row) => [row.valve, shimOf(row)]));
    const entry = { kind: 'lash_shims' as const, step: question.step, shims, lot: draft.lot.trim() };
    if ((await answer(`${rows.length} shims`, entry)) !== 'refused') forget();
  };
  useKeys([{ keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() }]);
  if (!data)
    return (
      <section className={input.input} aria-label="Shims">
        <div className={input.confirm}>{error ? error.message : 'Looking at the shims'}</div>
      </section>
    );
  const fine = (mm: number) => sayFine(mm, voice.factor).split(' ')[0];
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Shims">
      <div className={classes.shims}>
        {rows.map((row) => (
          <div key={row.valve} data-changed={shimOf(row) !== thick(row.shim_now_mm)} data-in={row.is_in}>
            <span>{row.words}</span>
            <TextInput
              aria-label={`Shim for ${row.words}`}
              inputMode="decimal"
              value={shimOf(row)}
              onKeyDown={(event) => event.key === 'Enter' && void record()}
              onChange={(event) =>
                change({ shims: { ...draft.shims, [row.valve]: event.currentTarget.value.slice(0, 6) } })
              }
            />
            <small>
              {thick(row.shim_now_mm)}, {fine(row.lash_now_mm)} → <b>{fine(row.lash_mm)}</b>
              <br />
              {row.came_from ? `from ${row.came_from}` : row.source === 'own' ? 'stays' : row.source}
            </small>
          </div>
        ))}
      </div>
      <div className={input.foot}>
        <span className={input.grow}>{say(data.words, voice)}</span>
        <Button size="lg" onClick={record} loading={busy}>
          These are in
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
