/** How true TDC is looked for; each way says how far it can be trusted. */
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import classes from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';

export function MethodChoice({ question, wrong, answer }: InputProps<QuestionOf<'tdc_method'>>) {
  const { options } = question;
  const choose = (option: (typeof options)[number] | undefined) => {
    if (option) void answer(option.label, { kind: 'tdc_method', method: option.value });
  };
  useKeys([
    ...options.map((option, n) => ({ keys: [String(n + 1)], label: option.label, run: () => choose(option) })),
    { keys: ['Enter', ' ', 'PageDown'], label: 'the first', run: () => choose(options[0]) },
  ]);
  return (
    <section className={classes.input} aria-label="Method">
      <Choices
        choices={options.map((option) => ({ title: option.label, detail: option.detail ?? '' }))}
        onChoose={(n) => choose(options[n])}
      />
      <Wrong wrong={wrong} />
    </section>
  );
}
