/** A stop of turning over: first that it has been turned, or what was met on the way; then what every mark says, by its name. */
import { Button, TextInput } from '@mantine/core';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Choices } from '../../ledger/Choices';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import input from '../../ledger/input.module.css';
import { Undo } from '../../ledger/Undo';
import { Wrong } from '../../ledger/Wrong';
import { AllMeet, allSaid, anyOff, entered, Looks, type Said, useLookKeys } from './Looks';
import classes from './StepInput.module.css';

type Props = InputProps<QuestionOf<'turn_seen'>>;
type Turned = 'turned' | 'hard_stop' | 'springy' | 'noise' | 'stiff';

interface Draft {
  turned: Turned | '';
  looks: Said;
  meets: '' | 'meets' | 'off';
  note: string;
}

const EMPTY: Draft = { turned: '', looks: {}, meets: '', note: '' };
const TURNED: { turned: Turned; title: string; detail: string; foot: string }[] = [
  { turned: 'turned', title: 'Turned', detail: 'freely', foot: '' },
  {
    turned: 'hard_stop',
    title: 'Dead stop',
    detail: 'stop turning now',
    foot: 'Valves may be on the pistons. Nothing is turned until it is looked into.',
  },
  {
    turned: 'springy',
    title: 'Springy',
    detail: 'it gives and comes back',
    foot: 'Compression, a gearbox or a valve spring. Look, then go on.',
  },
  { turned: 'noise', title: 'Noise', detail: 'say what', foot: 'Nothing is turned until it is looked into.' },
  { turned: 'stiff', title: 'Stiff', detail: 'say where', foot: 'Nothing is turned until it is looked into.' },
];
const MEETS = [
  { meets: 'meets' as const, title: 'As it should be', detail: 'nothing is off' },
  { meets: 'off' as const, title: 'Off', detail: 'it is laid again' },
];

export function TurnInput(props: Props) {
  const { bench, question } = props;
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.${question.key}.${question.stop}`, EMPTY);
  if (question.status === 'done') return <Undo {...props} />;
  if (draft.turned === 'turned') return <Seen {...props} draft={draft} change={change} forget={forget} />;
  return (
    <>
      <HasTurned {...props} draft={draft} change={change} forget={forget} />
      <Undo {...props} />
    </>
  );
}

interface DraftProps extends Props {
  draft: Draft;
  change: (part: Partial<Draft>) => void;
  forget: () => void;
}

/** Whether it has been turned, and how it went. */
function HasTurned({ question, wrong, busy, answer, draft, change, forget }: DraftProps) {
  const chosen = TURNED.findIndex((one) => one.turned === draft.turned);
  const choice = TURNED[chosen];
  const needsWords = draft.turned === 'noise' || draft.turned === 'stiff';
  const can = !busy && !question.blocked && choice !== undefined && (!needsWords || draft.note.trim() !== '');
  const record = async () => {
    if (!can || !choice) return;
    if ((await answer(choice.title, entryOf(question, draft))) !== 'refused') forget();
  };
  const choose = (n: number) => change({ turned: TURNED[n]?.turned ?? '' });
  useKeys([
    ...TURNED.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => choose(n) })),
    { keys: ['Enter', 'PageDown', ' '], label: 'record', run: () => void record() },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="Turned">
      <Choices choices={TURNED} chosen={chosen} onChoose={choose} />
      {needsWords && (
        <div className={classes.words}>
          <TextInput
            aria-label="What was it like?"
            placeholder="Where, and what it was like"
            autoFocus
            value={draft.note}
            onChange={(event) => change({ note: event.currentTarget.value })}
            onKeyDown={(event) => event.key === 'Enter' && void record()}
          />
        </div>
      )}
      {(choice || question.blocked) && (
        <div className={input.foot}>
          <span className={input.grow}>{question.blocked ? `Not yet: ${question.blocked}.` : choice?.foot}</span>
          {choice && (
            <Button size="lg" onClick={() => void record()} loading={busy} disabled={!can}>
              Record
            </Button>
          )}
        </div>
      )}
      <Wrong wrong={wrong} />
    </section>
  );
}

function entryOf(question: Schemas['TurnQuestion'], draft: Draft) {
  if (draft.turned === 'noise' || draft.turned === 'stiff')
    return { kind: 'trouble' as const, step: question.step, what: draft.turned, note: draft.note.trim() };
  const saw: Schemas['TurnSeen']['saw'] = draft.turned === 'springy' ? 'springy' : 'hard_stop';
  return { ...seen(question, draft), saw, looks: [], went_in: [] };
}

function seen(question: Schemas['TurnQuestion'], draft: Draft) {
  const looks = entered(question.looks, draft.looks);
  const tools = question.looks.filter((one) => one.kind === 'tool').map((one) => one.of);
  return {
    kind: 'turn_seen' as const,
    step: question.step,
    stop: question.stop,
    looks,
    went_in: tools.filter((of) => draft.looks[of]?.saw === 'meets'),
    note: '',
  };
}

/** What the marks say once it has been turned; where none are known, whether anything is off. */
function Seen({ question, voice, wrong, busy, answer, draft, change, forget }: DraftProps) {
  const { looks } = question;
  const byName = looks.length > 0;
  const at = useLookKeys(looks, draft.looks, (said) => change({ looks: said }), byName);
  const isOff = byName ? anyOff(draft.looks) : draft.meets === 'off';
  const whole = byName ? allSaid(looks, draft.looks) : draft.meets !== '';
  const record = async () => {
    if (busy || !whole) return;
    const saw: Schemas['TurnSeen']['saw'] = isOff ? 'off' : 'meets';
    if ((await answer(isOff ? 'off' : 'they meet', { ...seen(question, draft), saw })) !== 'refused') forget();
  };
  const digits = byName
    ? []
    : MEETS.map((one, n) => ({ keys: [String(n + 1)], label: one.title, run: () => change({ meets: one.meets }) }));
  useKeys([
    ...digits,
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
    { keys: ['Escape'], label: 'not turned yet', quiet: true, run: () => change({ turned: '' }) },
  ]);
  return (
    <section className={input.input} data-wrong={wrong !== null} aria-label="What is seen">
      {byName ? (
        <Looks
          looks={looks}
          said={draft.looks}
          at={at}
          voice={voice}
          wrongAt={wrong?.field ?? ''}
          onSay={(said) => change({ looks: said })}
        />
      ) : (
        <Choices
          choices={MEETS}
          chosen={MEETS.findIndex((one) => one.meets === draft.meets)}
          onChoose={(n) => change({ meets: MEETS[n]?.meets ?? '' })}
        />
      )}
      <div className={input.foot}>
        <span className={input.grow}>
          {isOff ? 'What is off is laid again before it is turned again.' : question.turned_ask}
        </span>
        {byName && !whole && <AllMeet looks={looks} onSay={(said) => change({ looks: said })} />}
        <Button variant="default" onClick={() => change({ turned: '' })}>
          Not turned yet
        </Button>
        <Button size="lg" onClick={() => void record()} loading={busy} disabled={!whole}>
          Record
        </Button>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
