/** The ledger as a running strip, newest on top. A wrong entry is struck through, never removed; the strike says why. */
import { UnstyledButton } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import { memo, useMemo, useState } from 'react';
import type { Schemas } from '../api/client';
import { say, type Voice } from '../app/saying';
import { sayHour, sayMoment } from '../app/times';
import { olderTape } from '../ledger/api';
import { discard, type Unsent } from '../ledger/outbox';
import { pictureAt } from '../ledger/pictures';
import { PrintRecord } from './PrintRecord';
import classes from './Tape.module.css';

type Line = Schemas['TapeLine'];

export interface TapeProps {
  bench: Schemas['Bench'];
  unsent: Unsent[];
  trouble: string;
  voice: Voice;
  onStrike: ((id: string) => void) | undefined;
  onNote: () => void;
  onPapers: () => void;
}

export function Tape({ bench, unsent, trouble, voice, onStrike, onNote, onPapers }: TapeProps) {
  const [older, setOlder] = useState<Line[]>([]);
  const shown = useMemo(() => joined(bench.tape, older), [bench.tape, older]);
  const oldest = shown.at(-1)?.seq ?? 1;
  // what keeps the first one back keeps back all behind it
  const keptBack = unsent.find((item) => item.said && !item.refused)?.said;
  const more = async () => {
    const lines = await olderTape(bench.engine.serial, oldest);
    setOlder(joined(shown, lines));
  };
  return (
    <section className={classes.tape} aria-label="Tape">
      <header>
        <h2>Tape · {bench.entries}</h2>
        <span className={classes.heads}>
          <PrintRecord serial={bench.engine.serial} entries={bench.entries} />
          <UnstyledButton onClick={onPapers}>Papers</UnstyledButton>
          {onStrike && <UnstyledButton onClick={onNote}>Note</UnstyledButton>}
        </span>
      </header>
      {trouble && <p className={classes.trouble}>{trouble}</p>}
      {keptBack && (
        <p className={classes.trouble} role="status">
          {keptBack}
        </p>
      )}
      {bench.engine.misfit && (
        <p className={classes.trouble} role="alert">
          This ledger is not as it was sealed: {bench.engine.misfit}. Ask the lead; a backup or a record that was handed
          out shows what stood there.
        </p>
      )}
      {bench.engine.head && !bench.engine.misfit && (
        <p className={classes.seal} title="Every entry fits its seal; this is the head of the ledger.">
          verified · {bench.engine.head}
        </p>
      )}
      <ol>
        {[...unsent].reverse().map((item) => (
          <UnsentLine key={item.id} item={item} />
        ))}
        {shown
          .filter((line) => line.kind !== 'strike')
          .map((line) => (
            <TapeLine key={line.id} serial={bench.engine.serial} line={line} voice={voice} onStrike={onStrike} />
          ))}
        {shown.length === 0 && unsent.length === 0 && <li className={classes.quiet}>Nothing recorded yet.</li>}
        {oldest > 1 && (
          <li>
            <UnstyledButton className={classes.more} onClick={more}>
              older entries
            </UnstyledButton>
          </li>
        )}
      </ol>
    </section>
  );
}

/** The newest part as it is now, and older lines that were fetched; each line once, the newer telling of it. */
function joined(newest: Line[], older: Line[]): Line[] {
  const by = new Map([...older, ...newest].map((line) => [line.seq, line]));
  return [...by.values()].sort((a, b) => b.seq - a.seq);
}

interface TapeLineProps extends Pick<TapeProps, 'voice' | 'onStrike'> {
  serial: string;
  line: Line;
}

/** A line that stayed as it was is not drawn anew, however many there are. */
const TapeLine = memo(function TapeLine({ serial, line, voice, onStrike }: TapeLineProps) {
  return (
    <li data-struck={line.struck !== null} data-look={line.look_again} data-line={line.seq}>
      <span className={classes.title}>{say(line.title, voice)}</span>
      <b>{line.value}</b>
      <small>
        <time dateTime={line.at} title={sayMoment(line.at)}>
          {sayHour(line.at)}
        </time>
        {line.typed_at && `, typed ${sayHour(line.typed_at)}`}
        {` · ${line.by}`}
        {line.detail && <span className={classes.detail}> · {line.detail}</span>}
        {line.goes_back && <span className={classes.detail}> · dated before the entry below: a clock was wrong</span>}
        {line.because && <span className={classes.detail}> · taken all the same: {line.because}</span>}
      </small>
      {line.picture && !line.struck && (
        <Link
          className={classes.picture}
          to="/bench/$serial/pictures"
          params={{ serial }}
          search={{ at: line.picture }}
          aria-label={`Look at the picture ${line.value}`}
        >
          <img className={classes.small} src={pictureAt(line.picture, true)} alt="" loading="lazy" />
        </Link>
      )}
      {line.struck ? (
        <em>
          struck by {line.struck.by}: {line.struck.reason}
        </em>
      ) : (
        onStrike && (
          <UnstyledButton
            className={classes.strike}
            onClick={() => onStrike(line.id)}
            aria-label={`Strike ${line.title} ${line.value}`}
          >
            strike
          </UnstyledButton>
        )
      )}
    </li>
  );
});

function waits(item: Unsent): string {
  const gone = item.gone && item.picture ? `${Math.round(100 * item.gone)} % has gone; ` : 'not yet sent; ';
  return `${gone}it goes out by itself`;
}

function UnsentLine({ item }: { item: Unsent }) {
  return (
    <li data-unsent={item.refused ? 'refused' : 'waiting'}>
      <span className={classes.title}>{item.title}</span>
      <b>{item.value}</b>
      <small>{item.refused ? item.refused.sentence : waits(item)}</small>
      {item.refused && (
        <UnstyledButton className={classes.strike} onClick={() => void discard(item.id)}>
          take off
        </UnstyledButton>
      )}
    </li>
  );
}
