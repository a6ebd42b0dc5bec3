/** Something the book leaves open: counted, measured, read off or told by whoever has it in his hand; not known is always an answer. */
import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import classes from './FoundInput.module.css';

type Props = InputProps<QuestionOf<'found'>>;

const EMPTY = { value: '', how: '' };

export function FoundInput({ bench, question, wrong, busy, answer }: Props) {
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, EMPTY);
  const { options, hows } = question;
  const how = hows.find((one) => one === draft.how) ?? hows[0] ?? 'told';
  const value = draft.value.trim();
  const can = !busy && !question.blocked && value !== '';
  const record = async () => {
    if (!can) return;
    const said = options.find((one) => one.value === value)?.label ?? `${value} ${question.unit}`.trim();
    if ((await answer(said, { kind: 'found', pointer: question.pointer, value, how, note: '' })) !== 'refused')
      forget();
  };
  const goOn = async (more: string[] = []) => {
    if (busy || question.blocked) return;
    const { pointer } = question;
    const entry = { kind: 'not_known' as const, pointer, more, called_more: [] };
    if ((await answer('not known', entry)) !== 'refused') forget();
  };
  const all = question.to_come.length + 1;
  useKeys([
    ...options.map((one, n) => ({
      keys: [String(n + 1)],
      label: one.label,
      run: () => change({ value: one.value }),
    })),
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['n'], label: 'not known, go on', run: () => void goOn() },
    { keys: ['k'], label: 'none is known', quiet: true, run: () => all > 1 && void goOn(question.to_come) },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      {question.typed === 'choice' ? (
        <Choices
          choices={options.map((one) => ({ title: one.label, detail: one.detail }))}
          chosen={options.findIndex((one) => one.value === draft.value)}
          onChoose={(n) => change({ value: options[n]?.value ?? '' })}
        />
      ) : (
        <div className={classes.typed}>
          <TextInput
            aria-label={question.title}
            autoFocus
            data-figure={question.typed === 'words' ? undefined : true}
            inputMode={question.typed === 'words' ? 'text' : 'decimal'}
            placeholder={question.typed === 'words' ? 'M10 or 7/16-14' : ''}
            value={draft.value}
            onKeyDown={(event) => {
              if (question.typed !== 'words') return;
              if (event.key === 'Enter') void record();
              // words are typed as letters: out of them the letters are keys
              if (event.key === 'Escape') event.currentTarget.blur();
            }}
            onChange={(event) => change({ value: event.currentTarget.value.slice(0, 40) })}
          />
          <span>{question.unit}</span>
        </div>
      )}
      <div className={input.foot}>
        <fieldset className={classes.hows} aria-label="How it is known">
          {hows.map((one) => (
            <UnstyledButton key={one} aria-pressed={one === how} onClick={() => change({ how: one })}>
              {one}
            </UnstyledButton>
          ))}
        </fieldset>
        <span className={input.grow}>{question.blocked && `Not yet: ${question.blocked}.`}</span>
        {all > 1 && (
          <UnstyledButton
            className={classes.none}
            disabled={Boolean(question.blocked)}
            onClick={() => void goOn(question.to_come)}
          >
            <b>K</b> none of the {all} is known
          </UnstyledButton>
        )}
        <Button variant="default" size="lg" onClick={() => void goOn()} disabled={Boolean(question.blocked)}>
          Not known, go on
        </Button>
        <Button size="lg" onClick={() => void record()} loading={busy} disabled={!can}>
          Record
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
