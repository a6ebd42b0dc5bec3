/** The wheel and dial as they are set up: the builder's own numbering, which way its figures run, the gauges, plugs out. */
import { Button, Checkbox, NativeSelect, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { useKeys } from '../../app/keys';
import type { InputProps, QuestionOf } from '../../ledger/contract';
import { useDraft } from '../../ledger/draft';
import classes from '../../ledger/input.module.css';
import { Wrong } from '../../ledger/Wrong';
import { gaugesQuery } from '../../shop/api';

type Setup = Schemas['WheelSetup'];

const NUMBERINGS: Setup['numbering'][] = ['0-360', '0-180-0', '0-90-0-90-0'];
const RUNS: { value: Setup['runs']; label: string }[] = [
  { value: 'grows', label: 'figures grow' },
  { value: 'falls', label: 'figures fall' },
];
const EMPTY: Omit<Setup, 'kind'> = {
  numbering: '0-90-0-90-0',
  runs: 'grows',
  wheel_gauge: '',
  dial_gauge: '',
  plugs_out: false,
};

export function SetupForm({ bench, wrong, busy, answer }: InputProps<QuestionOf<'wheel_setup'>>) {
  const [draft, change, forget] = useDraft(`${bench.engine.serial}.setup`, EMPTY);
  const gauges = useQuery(gaugesQuery);
  const of = (kind: 'wheel' | 'dial') =>
    (gauges.data ?? []).filter((gauge) => gauge.kind === kind || (kind === 'wheel' && gauge.kind === 'encoder'));
  const first = (kind: 'wheel' | 'dial') => (of(kind).find((gauge) => !gauge.overdue) ?? of(kind)[0])?.code ?? '';
  const setup = {
    ...draft,
    wheel_gauge: draft.wheel_gauge || first('wheel'),
    dial_gauge: draft.dial_gauge || first('dial'),
  };
  const record = async () => {
    if ((await answer(setup.numbering, { kind: 'wheel_setup', ...setup })) !== 'refused') forget();
  };
  useKeys([
    ...NUMBERINGS.map((numbering, n) => ({
      keys: [String(n + 1)],
      label: numbering,
      run: () => change({ numbering }),
    })),
    { keys: ['r'], label: 'runs', run: () => change({ runs: draft.runs === 'grows' ? 'falls' : 'grows' }) },
    { keys: ['x'], label: 'plugs out', run: () => change({ plugs_out: !draft.plugs_out }) },
    { keys: ['Enter', 'PageDown'], label: 'record', run: () => void record() },
  ]);
  const folded = draft.numbering !== '0-360';
  const list = (kind: 'wheel' | 'dial') =>
    of(kind).map((gauge) => ({
      value: gauge.code,
      label: `${gauge.code} ${gauge.name}${gauge.overdue ? ' (calibration overdue)' : ''}`,
    }));
  return (
    <section className={classes.input} data-wrong={wrong !== null} aria-label="Wheel set-up">
      <div className={classes.setup}>
        <fieldset>
          <legend>The wheel is numbered</legend>
          <div className={classes.options}>
            {NUMBERINGS.map((numbering, n) => (
              <UnstyledButton
                key={numbering}
                aria-pressed={draft.numbering === numbering}
                onClick={() => change({ numbering })}
              >
                <small>{n + 1}</small> {numbering}
              </UnstyledButton>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend>{folded ? 'Folded: grows away from each zero' : 'Turning the running way from its zero'}</legend>
          <div className={classes.options}>
            {RUNS.map((runs) => (
              <UnstyledButton
                key={runs.value}
                disabled={folded}
                aria-pressed={!folded && draft.runs === runs.value}
                onClick={() => change({ runs: runs.value })}
              >
                {runs.label}
              </UnstyledButton>
            ))}
          </div>
        </fieldset>
        <NativeSelect
          label="Wheel"
          value={setup.wheel_gauge}
          data={list('wheel')}
          onChange={(event) => change({ wheel_gauge: event.currentTarget.value })}
        />
        <NativeSelect
          label="Dial"
          value={setup.dial_gauge}
          data={list('dial')}
          onChange={(event) => change({ dial_gauge: event.currentTarget.value })}
        />
        <div className={classes.whole}>
          <Checkbox
            size="lg"
            label="Plugs are out, stand is locked (X)"
            checked={draft.plugs_out}
            onChange={(event) => change({ plugs_out: event.currentTarget.checked })}
          />
          <Button onClick={record} loading={busy}>
            Record the set-up
          </Button>
        </div>
      </div>
      <Wrong wrong={wrong} />
    </section>
  );
}
