/** A joint to scale: each fastener with its place in the order and one arc a stage; beside it the figure that matters now and its siblings. */
import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { useSpeak, useSpoken } from '../app/spoken';
import { SpotsDrawing } from '../engine/SpotsDrawing';
import { Cautions } from '../ledger/Cautions';
import type { DrawingProps, Question } from '../ledger/contract';
import { SceneInset } from '../scene/SceneInset';
import { jointQuery } from './api';
import classes from './JointDrawing.module.css';
import { Siblings } from './Siblings';
import { Traces } from './Traces';
import { torqueIn, useTorqueUnit } from './torque';

type Joint = Schemas['JointView'];

function stepOf(question: Question | undefined): string | undefined {
  return question && 'step' in question ? question.step : undefined;
}

export function JointDrawing({ bench, question, voice, choose }: DrawingProps) {
  const step = stepOf(question);
  const current = bench.state.joints?.joint ?? undefined;
  const isCurrent = current !== undefined && current.step === step;
  const other = useQuery({
    ...jointQuery(bench.engine.serial, step ?? '', bench.entries),
    enabled: step !== undefined && !isCurrent,
    placeholderData: (before) => before,
  });
  const joint = isCurrent ? current : other.data;
  const pull = question?.kind === 'pull' ? question : undefined;
  const atOnce = question?.kind === 'joint_ready' ? question.pulls.filter((one) => one.asks_torque) : [];
  useSpeak(pull ? pull.ask : '');
  if (!joint) return <div />;
  return (
    <div className={classes.joint}>
      <div className={classes.picture}>
        <SpotsDrawing joint={joint} now={pull?.fastener} />
        <p className={classes.legend}>
          <span>ring filled = stage done</span>
          {joint.stages.map((stage) => (
            <span key={stage.number} data-now={stage.is_now}>
              {stage.number}: {stage.words}
              {stage.done > 0 && stage.done < stage.of && ` · ${stage.done} / ${stage.of}`}
            </span>
          ))}
          {!joint.is_to_scale && <span>not to scale</span>}
        </p>
      </div>
      <div className={classes.beside}>
        {!pull && <SceneInset bench={bench} voice={voice} step={step} choose={choose} />}
        {pull ? <Target question={pull} /> : <About joint={joint} />}
        {atOnce.map((one) => (
          <Target key={one.key} question={one} />
        ))}
        {joint.siblings.length > 0 && <Siblings joint={joint} />}
        <Traces
          serial={bench.engine.serial}
          step={joint.step}
          entries={bench.entries}
          stage={joint.stages.find((stage) => stage.is_now)?.number}
        />
        {joint.flagged.map((one) => (
          <section key={one.title} className={classes.flagged} data-decided={Boolean(one.decided)}>
            <b>{one.title}</b>
            <p>{one.decided || one.sentence}</p>
          </section>
        ))}
        {joint.spent.length > 0 && (
          <p className={classes.spent}>New ones go in: {joint.spent.map((one) => `bolt ${one}`).join(', ')}.</p>
        )}
        {joint.loaded.length > 0 && <p className={classes.soft}>Springs push up at {joint.loaded.join('; ')}.</p>}
        <Cautions question={question} />
      </div>
    </div>
  );
}

function About({ joint }: { joint: Joint }) {
  return (
    <section className={classes.about} aria-label="The joint">
      {joint.about.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}

function Target({ question }: { question: Schemas['PullQuestion'] }) {
  const [unit] = useTorqueUnit();
  const [spoken, setSpoken] = useSpoken();
  const torque = torqueIn(question.target, unit);
  const { book } = question;
  const inOwn = book && book.unit !== unit ? `${torque} ${unit}` : '';
  const set = torqueIn(question.set_to, unit);
  // an angle that nobody knows is turned too; a loosening has one and is not measured
  const turns = question.target.length === 0 && (question.asks_angle || question.target_deg != null);
  return (
    <section className={classes.target} aria-label="What to pull">
      <header>
        <span>{turns ? 'Turn' : torque ? 'Pull to' : 'By hand'}</span>
        <UnstyledButton aria-pressed={spoken} onClick={() => setSpoken(!spoken)}>
          {spoken ? 'read aloud' : 'silent'}
        </UnstyledButton>
      </header>
      {turns && (
        <b>
          {question.target_deg != null ? `${question.target_deg}°` : 'not known'}
          {question.left_hand && <small>left-hand</small>}
        </b>
      )}
      {torque && (
        <b>
          {book?.text ?? torque}
          <small>{book?.unit ?? unit}</small>
        </b>
      )}
      {inOwn && <p>as the book has it; {inOwn}</p>}
      {!turns && torque && question.target_deg != null && <b>{question.target_deg}°</b>}
      {set && (
        <p>
          set the wrench to{' '}
          <strong>
            {set} {unit}
          </strong>
          , for its extension
        </p>
      )}
      {question.window && <p>window {question.window}</p>}
      {question.is_generic && (
        <p className={classes.generic}>Generic: by size and class, not this engine's own figure.</p>
      )}
      {question.left_hand && <p className={classes.generic}>Left-hand thread: it tightens the other way round.</p>}
    </section>
  );
}
