/** How every camshaft is told to stand right: degreed, by marks, locks or counts, or on the lead's word; the wheel where it was used. */
import type { Schemas } from '../api/client';
import { say } from '../app/saying';
import type { DrawingProps } from '../ledger/contract';
import { TimingDrawing } from '../timing';
import { BeginFrom } from '../writer/BeginFrom';
import classes from './ProofDrawing.module.css';

type Proof = Schemas['ProofView'];

const BY: Record<NonNullable<Proof['by']>, string> = {
  degreed: 'degreed',
  marks: 'by marks',
  lock: 'by its lock',
  counts: 'by counts',
  word: "on the lead's word",
};

export function ProofDrawing(props: DrawingProps) {
  const { bench, voice } = props;
  const proofs = bench.state.hand_over?.proofs ?? [];
  const found = bench.state.found?.facts ?? [];
  if (bench.state.timing?.wheel) return <TimingDrawing {...props} />;
  return (
    <div className={classes.proofs}>
      <section aria-label="How the timing is proven">
        {proofs.map((one) => (
          <div key={one.camshaft} className={classes.proof} data-by={one.by ?? 'none'}>
            <b>{one.name}</b>
            <strong>{one.by ? BY[one.by] : 'not yet'}</strong>
            <span>
              {say(one.words, voice)}
              {one.who && ` · ${one.who}`}
            </span>
          </div>
        ))}
      </section>
      {found.length > 0 && (
        <section aria-label="Found at the bench" className={classes.found}>
          <h2>Found at the bench · {found.length}</h2>
          {found.map((one) => (
            <p key={one.pointer}>
              <span>{one.called}</span>
              <b>{one.value}</b>
              <small>{one.book ? `the book says ${one.book} by now` : one.how}</small>
            </p>
          ))}
          <a href={`/api/engines/${bench.engine.serial}/measured.json`}>
            Document with all of it, for the next revision
          </a>
          <BeginFrom from={{ engine: bench.engine.serial }} label="Describe it as it was built here" />
        </section>
      )}
    </div>
  );
}
