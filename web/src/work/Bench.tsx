/** One engine, one step: the drawing of what is being done, one big input, the tape, the loose ends, the permission to turn. */
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { Suspense, useEffect, useState } from 'react';
import type { Schemas } from '../api/client';
import { useFocusBack } from '../app/focus';
import { KeyStrip } from '../app/KeyStrip';
import type { KeyAction } from '../app/keys';
import { bringTheRest, later } from '../app/later';
import { type LengthUnit, say, type Voice } from '../app/saying';
import { useLikings, usePerson, useTurnRound } from '../app/session';
import { useVoice } from '../app/voice';
import { Shafts } from '../clearway/Shafts';
import type { Question } from '../ledger/contract';
import { type Outcome, useOutbox, useRecord } from '../ledger/outbox';
import { gaugesQuery } from '../shop/api';
import { Here } from '../shop/Here';
import { Answer } from './Answer';
import { mayBeAnsweredAgain, type Sent, useAnswering } from './answering';
import classes from './Bench.module.css';
import { BenchHead } from './BenchHead';
import { DRAWINGS, inputOf } from './inputs';
import { LooseEnds } from './LooseEnds';
import { RunOfWork } from './RunOfWork';
import { Tape } from './Tape';
import { WithBench } from './WithBench';

const Stuck = later(async () => (await import('./Stuck')).Stuck);
const HelpTopic = later(async () => (await import('../help/HelpTopic')).HelpTopic);
const Told = later(async () => (await import('../help/Told')).Told);
const PapersDialog = later(async () => (await import('./PapersDialog')).PapersDialog);
const NoteDialog = later(async () => (await import('./NoteDialog')).NoteDialog);
const ForWhomDialog = later(async () => (await import('./ForWhomDialog')).ForWhomDialog);
const PictureDialog = later(async () => (await import('../pictures/PictureDialog')).PictureDialog);
const WantedPicture = later(async () => (await import('../pictures/WantedPicture')).WantedPicture);
const StrikeDialog = later(async () => (await import('./StrikeDialog')).StrikeDialog);
const StandsDialog = later(async () => (await import('../clearway/StandsDialog')).StandsDialog);
const PlaceDialog = later(async () => (await import('./PlaceDialog')).PlaceDialog);
const LAST = 'last';
/** After so long the bench stands and can be used: then what other steps need is fetched. */
const REST_AFTER_MS = 2_000;
const NEXT_UNIT: Record<LengthUnit, LengthUnit> = { mm: 'in', in: 'thou', thou: 'mm' };

export function Bench({ serial }: { serial: string }) {
  // fetched beside the bench, so that a set-up can be recorded the moment it is asked for
  const gauges = useQuery(gaugesQuery);
  return (
    <WithBench serial={serial} wait={gauges.isPending}>
      {(bench) => (
        // a question is never seen before the field that takes its answer is there: a key pressed at once would be lost
        <Suspense fallback={null}>
          <BenchScreen bench={bench} />
        </Suspense>
      )}
    </WithBench>
  );
}

/** The question that is asked: the one chosen, else the first open one that is not already on its way. */
function chooseQuestion(state: Schemas['BenchState'], chosen: string | null, underway: string[]) {
  const step = state.steps.find((one) => one.status === 'now');
  const all = state.steps.flatMap((one) => one.questions);
  const picked = all.find((question) => question.key === chosen);
  const may = (question: Question) => question.status === 'open' && !question.blocked;
  const open = step?.questions.find((question) => may(question) && !underway.includes(question.key));
  return picked ?? open ?? step?.questions.find(may);
}

/** An answer that has not gone out: it is not given twice, and what comes next is for the ledger to say. */
function Kept({ question }: { question: Question }) {
  return (
    <section className={classes.kept} aria-label="Not sent yet" role="status">
      <b>{question.title}: kept on this machine.</b> It goes out by itself. What comes next is told once Gurvo is
      reached; pictures and notes are taken meanwhile.
    </section>
  );
}

/** The question to go on with while an answer is on its way, what kept it waiting being answered; itself where nobody knows the next. */
function goingOn(state: Schemas['BenchState'], sent: Sent | undefined): Question | undefined {
  const all = state.steps.flatMap((one) => one.questions);
  const next = sent?.next ? all.find((one) => one.key === sent.next) : undefined;
  return next ? { ...next, blocked: '' } : all.find((one) => one.key === sent?.question);
}

function BenchScreen({ bench }: { bench: Schemas['Bench'] }) {
  const { engine, state } = bench;
  const voice = useVoice(engine.running_direction);
  const outbox = useOutbox();
  const unsent = outbox.items.filter((item) => item.serial === engine.serial);
  const [chosen, setChosen] = useState<string | null>(null);
  const [striking, setStriking] = useState<string | null>(null);
  const [noting, setNoting] = useState(false);
  const [changing, setChanging] = useState(false);
  const [placing, setPlacing] = useState(false);
  const [telling, setTelling] = useState(false);
  const [taking, setTaking] = useState(false);
  const [ordering, setOrdering] = useState(false);
  const [papers, setPapers] = useState(false);
  const [helping, setHelping] = useState(false);
  const [whole, setWhole] = useState(false);
  const [ending, setEnding] = useState<Outcome | null>(null);
  useFocusBack(
    [striking, noting, changing, placing, telling, taking, ordering, papers, helping].some((one) => Boolean(one)),
  );
  const { person } = usePerson();
  const record = useRecord(engine.serial, person.username);
  const waiting = unsent.filter((item) => !item.refused).map((item) => item.question);
  const answering = useAnswering(bench, person.username, waiting, setChosen);
  const question = goingOn(state, answering.underway.at(-1)) ?? chooseQuestion(state, chosen, waiting);
  const isKept =
    question !== undefined &&
    waiting.includes(question.key) &&
    !answering.underway.some((one) => one.question === question.key) &&
    !(chosen === question.key && mayBeAnsweredAgain(question));
  const strikable = bench.tape.filter((line) => !line.struck && line.kind !== 'strike');
  const commonKeys = useBenchKeys({
    serial: engine.serial,
    state,
    question,
    setChosen,
    voice,
    openNote: () => setNoting(true),
    changePerson: () => setChanging(true),
    showWhole: () => setWhole(!whole),
    showPapers: () => setPapers(true),
  });
  const actions: KeyAction[] = engine.may_record
    ? [
        ...commonKeys,
        ...(state.clearway
          ? [{ keys: ['y'], label: 'where one stands', quiet: true, run: () => setTelling(true) }]
          : []),
        { keys: ['q'], label: 'picture', shift: false, quiet: true, run: () => setTaking(true) },
        { keys: ['g'], label: 'move the engine', shift: false, quiet: true, run: () => setPlacing(true) },
        { keys: ['g'], shown: 'Shift G', label: 'for whom', shift: true, quiet: true, run: () => setOrdering(true) },
        { keys: ['u'], label: 'strike the last', run: () => setStriking(LAST) },
      ]
    : commonKeys.filter((action) => action.label !== 'note');
  // what was typed last is struck, not what happens to be the last that has arrived
  const isSettled = answering.underway.length === 0;
  const lastId = strikable[0]?.id ?? null;
  useEffect(() => {
    if (striking === LAST && isSettled) setStriking(lastId);
  }, [striking, isSettled, lastId]);
  const step =
    state.steps.find((one) => one.questions.some((each) => each.key === question?.key)) ?? state.steps.at(-1);
  const wanted = engine.may_record && question?.kind !== 'picture_needed' && step && state.pictures?.wanted[step.key];
  const Drawing = (question && inputOf(question.kind).Drawing) ?? DRAWINGS[step?.does ?? 'sign'];
  useDocumentTitle(`${engine.serial} · Gurvo`);
  useEffect(() => {
    const timer = setTimeout(bringTheRest, REST_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className={classes.bench}>
      <BenchHead
        engine={engine}
        permission={state.permission}
        seenFrom={voice.seenFrom}
        other="twin"
        changePerson={() => setChanging(true)}
        {...(engine.may_record ? { move: () => setPlacing(true) } : {})}
      />
      <RunOfWork engine={engine} state={state} current={question?.key} waiting={waiting} onChoose={setChosen} />
      <main className={classes.centre} data-whole={whole}>
        <div hidden={whole} className={classes.asked}>
          {question && (
            <button
              type="button"
              className={classes.help}
              aria-label="What is meant?"
              title="What is meant? (?)"
              onClick={() => setHelping(true)}
            >
              ?
            </button>
          )}
          <h1>
            {question
              ? say(question.ask, voice)
              : state.signed
                ? 'Signed. Nothing is left to do here.'
                : 'Everything waits: this is what holds it.'}
          </h1>
          <p className={classes.hint}>
            {question
              ? told(say(question.hint, voice))
              : state.signed
                ? 'The record can be handed over with the engine.'
                : 'Go to one of them and do what it waits for; the lead may leave it out there, with a reason.'}
          </p>
          {question && person.shows_help && (
            <Suspense fallback={null}>
              <HelpTopic question={question} small />
            </Suspense>
          )}
          {state.warnings.map((warning) => (
            <p key={warning} className={classes.warning}>
              {say(warning, voice)}
            </p>
          ))}
        </div>
        {!question && <Stuck stuck={state.stuck} voice={voice} onChoose={setChosen} />}
        <Drawing bench={bench} question={question} voice={voice} choose={setChosen} />
        {wanted && step && !whole && (
          <WantedPicture serial={engine.serial} step={step.key} of={wanted} onTake={() => setTaking(true)} />
        )}
        {question && isKept && !whole && <Kept question={question} />}
        {question && engine.may_record && !isKept && !whole && (
          <Answer key={question.key} {...{ bench, question, voice, answering }} />
        )}
        {question && !engine.may_record && <p className={classes.hint}>You may look. A builder takes the readings.</p>}
      </main>
      <aside className={classes.side}>
        <LooseEnds
          ends={state.loose_ends}
          voice={voice}
          maySign={engine.may_sign}
          onEnd={
            engine.may_record
              ? (title, entry, because) =>
                  void record(`end:${title}`, title, 'ended', entry, because).then((outcome) => setEnding(outcome))
              : undefined
          }
        />
        {state.clearway && (
          <Shafts
            serial={engine.serial}
            clearway={state.clearway}
            voice={voice}
            onTell={engine.may_record ? () => setTelling(true) : undefined}
          />
        )}
        {ending?.kind === 'refused' && <p className={classes.warning}>{ending.sentence}</p>}
        <Tape
          bench={bench}
          trouble={outbox.trouble}
          unsent={unsent}
          voice={voice}
          onStrike={engine.may_record ? setStriking : undefined}
          onNote={() => setNoting(true)}
          onPapers={() => setPapers(true)}
        />
      </aside>
      <div className={classes.keys}>
        <KeyStrip
          actions={[...(question && !isKept ? keysOf(question) : []), ...actions]}
          help={
            question && (
              <Suspense fallback={null}>
                <HelpTopic question={question} />
              </Suspense>
            )
          }
          asked={{ opened: helping, set: setHelping }}
        />
      </div>
      <Suspense fallback={null}>
        {striking && (
          <StrikeDialog
            serial={engine.serial}
            line={bench.tape.find((line) => line.id === striking)}
            onClose={() => setStriking(null)}
          />
        )}
        {papers && (
          <PapersDialog engine={engine} entries={bench.entries} opened={papers} onClose={() => setPapers(false)} />
        )}
        {noting && <NoteDialog serial={engine.serial} opened={noting} onClose={() => setNoting(false)} />}
        {telling && state.clearway && (
          <StandsDialog
            serial={engine.serial}
            shafts={state.clearway.shafts}
            voice={voice}
            opened={telling}
            onClose={() => setTelling(false)}
          />
        )}
        {taking && (
          <PictureDialog serial={engine.serial} step={step} opened={taking} onClose={() => setTaking(false)} />
        )}
        {ordering && (
          <ForWhomDialog
            serial={engine.serial}
            order={state.order}
            opened={ordering}
            onClose={() => setOrdering(false)}
          />
        )}
        {placing && <PlaceDialog engine={engine} opened={placing} onClose={() => setPlacing(false)} />}
      </Suspense>
      <Here opened={changing} onClose={() => setChanging(false)} />
    </div>
  );
}

/** A sentence as it is, until words of the trade in it can be tapped. */
const told = (text: string) => (
  <Suspense fallback={text}>
    <Told text={text} />
  </Suspense>
);

interface BenchKeysInput {
  serial: string;
  state: Schemas['BenchState'];
  question: Question | undefined;
  setChosen: (key: string | null) => void;
  voice: Voice;
  openNote: () => void;
  changePerson: () => void;
  showWhole: () => void;
  showPapers: () => void;
}

function useBenchKeys({
  serial,
  state,
  question,
  setChosen,
  voice,
  openNote,
  changePerson,
  showWhole,
  showPapers,
}: BenchKeysInput): KeyAction[] {
  const like = useLikings();
  const turnRound = useTurnRound();
  const navigate = useNavigate();
  const step = state.steps.find((one) => one.status === 'now');
  const move = (by: number) => {
    const list = step?.stage
      ? state.steps.filter((one) => one.stage === step.stage).flatMap((one) => one.questions)
      : (step?.questions ?? []);
    const at = list.findIndex((one) => one.key === question?.key);
    setChosen(list[Math.max(0, Math.min(list.length - 1, at + by))]?.key ?? null);
  };
  return [
    { keys: ['ArrowDown'], label: 'next question', quiet: true, run: () => move(1) },
    { keys: ['ArrowUp'], label: 'question before', quiet: true, run: () => move(-1) },
    { keys: ['f'], label: 'front / flywheel', run: turnRound },
    { keys: ['l'], label: 'mm / inch', run: () => like({ length_unit: NEXT_UNIT[voice.unit] }) },
    { keys: ['z'], label: 'drawing alone', quiet: true, run: showWhole },
    { keys: ['m'], label: 'note', quiet: true, run: openNote },
    { keys: ['h'], label: 'who is here', run: changePerson },
    { keys: ['w'], label: 'twin', run: () => navigate({ to: '/bench/$serial/twin', params: { serial } }) },
    ...(state.clearway
      ? [
          {
            keys: ['c'],
            label: 'clearway',
            quiet: true,
            run: () => navigate({ to: '/bench/$serial/clearway', params: { serial } }),
          },
        ]
      : []),
    {
      keys: ['q'],
      shown: 'Shift Q',
      shift: true,
      label: 'all pictures',
      quiet: true,
      run: () => navigate({ to: '/bench/$serial/pictures', params: { serial } }),
    },
    { keys: ['o'], shown: 'Shift O', shift: true, label: 'all papers', quiet: true, run: showPapers },
    { keys: ['o'], shift: false, label: 'the Floor', run: () => navigate({ to: '/' }) },
  ];
}

function keysOf(question: Question): KeyAction[] {
  const input = inputOf(question.kind);
  return [...input.keys, ...(input.also?.(question) ?? [])];
}
