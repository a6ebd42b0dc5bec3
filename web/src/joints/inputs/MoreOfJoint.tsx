/** What else becomes of a joint: left as it is until something, begun anew, a bolt found loose, taken out or replaced. Each says why. */
import { Button, NativeSelect, TextInput, UnstyledButton } from '@mantine/core';
import { type FormEvent, type ReactNode, useState } from 'react';
import { useKeys } from '../../app/keys';
import type { EntryBody, InputProps, Question } from '../../ledger/contract';
import { Wrong } from '../../ledger/Wrong';
import classes from './joints.module.css';

type Doing = 'left' | 'anew' | 'loose' | 'taken_out' | 'replaced';

const SAYS: Record<Doing, { label: string; ask: string }> = {
  left: { label: 'Left finger tight until …', ask: 'Until what does it stay so?' },
  loose: { label: 'A bolt found loose', ask: 'How was it found?' },
  taken_out: { label: 'A bolt taken out', ask: 'What was it?' },
  replaced: { label: 'A new one put in', ask: 'Which, and from where?' },
  anew: { label: 'Begin this anew', ask: 'Why is it begun anew? What was pulled no longer counts.' },
};
const ALL: Doing[] = ['left', 'loose', 'taken_out', 'replaced', 'anew'];

/** Whether it is unfolded, and the button that does so. */
export function useMore(): { isOpen: boolean; button: ReactNode } {
  const [isOpen, setOpen] = useState(false);
  const toggle = () => setOpen(!isOpen);
  useKeys([{ keys: ['j'], label: 'this joint', run: toggle }]);
  const button = (
    <UnstyledButton className={classes.eye} aria-expanded={isOpen} onClick={toggle}>
      <b>J</b> this joint
    </UnstyledButton>
  );
  return { isOpen, button };
}

interface MoreProps extends Pick<InputProps, 'bench' | 'wrong' | 'busy' | 'answer'> {
  question: Question & { step: string };
}

export function MoreOfJoint({ bench, question, wrong, busy, answer }: MoreProps) {
  const joint = bench.state.joints?.joint;
  const [doing, setDoing] = useState<Doing | null>(null);
  const [words, setWords] = useState('');
  const [bolt, setBolt] = useState('');
  const isDone = question.status === 'done';
  const offered = ALL.filter((one) => one !== 'left' || !isDone);
  const spots = joint?.step === question.step ? joint.spots.map((spot) => spot.id) : [];
  const begin = (one: Doing) => {
    setDoing(one);
    setWords('');
    setBolt(spots[0] ?? '1');
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!doing) return;
    const entry = entryOf(doing, question.step, bolt, words.trim());
    if ((await answer(`${SAYS[doing].label}: ${words}`, entry)) !== 'refused') setDoing(null);
  };
  const askBolt = doing === 'loose' || doing === 'taken_out' || doing === 'replaced';
  return (
    <div className={classes.more}>
      {!doing &&
        offered.map((one) => (
          <UnstyledButton key={one} onClick={() => begin(one)}>
            {SAYS[one].label}
          </UnstyledButton>
        ))}
      {doing && (
        <form className={classes.form} onSubmit={submit}>
          <TextInput
            aria-label={SAYS[doing].ask}
            placeholder={SAYS[doing].ask}
            autoFocus
            value={words}
            onChange={(event) => setWords(event.currentTarget.value.slice(0, 300))}
          />
          {askBolt && spots.length > 1 && (
            <NativeSelect
              aria-label="Which bolt"
              data={spots.map((id) => ({ value: id, label: `bolt ${id}` }))}
              value={bolt}
              onChange={(event) => setBolt(event.currentTarget.value)}
            />
          )}
          {askBolt && spots.length === 0 && (
            <TextInput aria-label="Which bolt" value={bolt} onChange={(event) => setBolt(event.currentTarget.value)} />
          )}
          <Button type="submit" variant="default" loading={busy} disabled={!words.trim() && doing !== 'replaced'}>
            Record
          </Button>
          <UnstyledButton onClick={() => setDoing(null)}>Not that</UnstyledButton>
        </form>
      )}
      <Wrong wrong={wrong} />
    </div>
  );
}

function entryOf(doing: Doing, step: string, fastener: string, words: string): EntryBody {
  if (doing === 'left') return { kind: 'joint_left', step, until: words };
  if (doing === 'anew') return { kind: 'joint_anew', step, reason: words };
  return { kind: 'bolt', step, fastener, found: doing, note: words };
}
