/** Which variant the engine is, told by what is seen on it. */
import { UnstyledButton } from '@mantine/core';
import { useKeys } from '../../app/keys';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';

export function VariantChoice({ question, wrong, answer }: InputProps<QuestionOf<'variant'>>) {
  const { options } = question;
  const choose = (option: (typeof options)[number] | undefined) => {
    if (option) void answer(option.label, { kind: 'variant', group: question.group_id, option: option.value });
  };
  useKeys(options.map((option, n) => ({ keys: [String(n + 1)], label: option.label, run: () => choose(option) })));
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label={question.title}>
      <div className={input.choice}>
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
