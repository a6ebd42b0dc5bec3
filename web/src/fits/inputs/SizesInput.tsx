/** Which size goes where: what stock gives, place by place, before and after; any of them may be changed. */
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useKeys } from '../../app/keys';
import { say, sayFine } from '../../app/saying';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { useFitSheet } from '../api';
import classes from './fits.module.css';

export function SizesInput({ bench, question, voice, wrong, busy, answer }: InputProps<QuestionOf<'fit_chosen'>>) {
  const sheet = useFitSheet(bench, question);
  const [draft, change, forget] = useDraft<{ sizes: Record<string, string>; lot: string }>(
    `${bench.engine.serial}.${question.key}`,
    { sizes: {}, lot: '' },
  );
  const choice = sheet?.choice;
  const places = sheet?.fit.places ?? [];
  const sizeOf = (place: string) =>
    draft.sizes[place] ?? choice?.rows.find((row) => row.place === place)?.size ?? choice?.sizes[0]?.id ?? '';
  const record = async () => {
    if (busy || !choice || question.blocked) return;
    const sizes = Object.fromEntries(places.map((place) => [place.id, sizeOf(place.id)]));
    const entry = { kind: 'fit_chosen' as const, step: question.step, fit: question.fit, sizes, lot: draft.lot.trim() };
    if ((await answer(choice.part, entry)) !== 'refused') forget();
  };
  useKeys([{ keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() }]);
  if (!choice)
    return (
      <section className={input.input} aria-label="Sizes">
        <div className={input.confirm}>Looking at the stock</div>
      </section>
    );
  const fine = (mm: number) => sayFine(mm, voice.factor).split(' ')[0];
  const gives = (place: string) => {
    const row = choice.rows.find((one) => one.place === place);
    if (!row || row.size !== sizeOf(place)) return '';
    return row.most_mm > row.least_mm ? `${fine(row.least_mm)} to ${fine(row.most_mm)}` : fine(row.gives_mm);
  };
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Sizes">
      <div className={classes.sizes}>
        {places.map((place) => {
          const row = choice.rows.find((one) => one.place === place.id);
          return (
            <div key={place.id}>
              <span>{place.id}</span>
              <NativeSelect
                aria-label={`Size for ${place.id}`}
                data={choice.sizes.map((size) => ({
                  value: size.id,
                  label: `${size.id} · ${size.size_mm} · ${size.free} free`,
                }))}
                value={sizeOf(place.id)}
                onChange={(event) => change({ sizes: { ...draft.sizes, [place.id]: event.currentTarget.value } })}
              />
              <small>
                {row?.now_mm != null && `${row.size_now} ${fine(row.now_mm)} → `}
                <b>{gives(place.id)}</b>
              </small>
            </div>
          );
        })}
      </div>
      <div className={input.foot}>
        <span className={input.grow}>{say(choice.words, voice)}</span>
        <TextInput
          aria-label="Lot"
          placeholder="Lot, if any"
          value={draft.lot}
          onChange={(event) => change({ lot: event.currentTarget.value.slice(0, 40) })}
        />
        <Button size="lg" onClick={record} loading={busy}>
          These go in
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
