/** Which variant the engine is, told by what is seen on it. */
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
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
      <Choices
        choices={options.map((option) => ({ title: option.label, detail: option.detail ?? '' }))}
        onChoose={(n) => choose(options[n])}
      />
      <Wrong wrong={wrong} />
    </section>
  );
}
