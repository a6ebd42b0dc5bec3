/** How true TDC is looked for; each way says how far it can be trusted. */
import { UnstyledButton } from '@mantine/core';
import { useKeys } from '../../app/keys';
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
      <div className={classes.choice}>
        {options.map((option, n) => (
          <UnstyledButton key={option.value} onClick={() => choose(option)}>
            <b>
              <i>{n + 1}</i>
              {option.label}
            </b>
            <span>{option.detail}</span>
          </UnstyledButton>
        ))}
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
