/** How true TDC is looked for; each way says how far it can be trusted. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { type InputProps, Wrong } from './Answer';
import classes from './Answer.module.css';

const METHODS: NonNullable<Schemas['Question']['method']>[] = ['positive_stop', 'equal_drop', 'fit', 'top'];

export function MethodChoice({ question, wrong, answer }: InputProps) {
  const options = METHODS.flatMap((method) => {
    const option = question.options?.find((one) => one.value === method);
    return option ? [{ method, ...option }] : [];
  });
  const choose = (option: (typeof options)[number] | undefined) => {
    if (option)
      void answer(option.label, { kind: 'decision', decision: { subject: 'tdc_method', method: option.method } });
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
