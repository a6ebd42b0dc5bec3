/** A valve that is out or cannot be told, accepted by the lead with the reason. */
import { Button, TextInput } from '@mantine/core';
import { useKeys } from '../../app/keys';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';

export function LashDecide({ bench, question, wrong, busy, answer }: InputProps<QuestionOf<'lash_decided'>>) {
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}`, { reason: '' });
  const record = async () => {
    if (busy) return;
    const { step, valve } = question;
    const entry = { kind: 'lash_decided' as const, step, valve, decision: 'accepted' as const };
    if ((await answer('accepted', { ...entry, reason: draft.reason.trim() })) !== 'refused') forget();
  };
  useKeys([{ keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() }]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Accepted by the lead">
      <div className={input.confirm}>
        <TextInput
          aria-label="Why it may stay"
          placeholder="Why may it stay so?"
          value={draft.reason}
          onChange={(event) => change({ reason: event.currentTarget.value.slice(0, 300) })}
          onKeyDown={(event) => event.key === 'Enter' && void record()}
        />
        <Button size="lg" onClick={record} loading={busy}>
          Accepted by the lead
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
