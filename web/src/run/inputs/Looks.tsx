/** Marks, coloured links and tools looked at by name: each meets, is off and how far, or cannot be seen. Nothing is chosen beforehand. */
import { TextInput, UnstyledButton } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { type KeyAction, useKeys } from '../../app/keys';
import { sayClock, type Voice } from '../../app/saying';
import classes from './Looks.module.css';

export type LookView = Schemas['LookView'];
export type Look = Pick<Schemas['MarkLook'], 'saw' | 'teeth' | 'way'>;
export type Said = Record<string, Look>;

type Saw = Look['saw'];

const ANSWERS: Record<LookView['kind'], { saw: Saw; label: string }[]> = {
  mark: answers('meets', 'off', 'less than a tooth', "can't see"),
  link: answers('meets', 'off', 'less than a link', "can't see"),
  own: answers('meets', 'off', 'less than a tooth', "can't see"),
  tool: [
    { saw: 'meets', label: 'goes in' },
    { saw: 'tool', label: 'does not go in' },
    { saw: 'unseen', label: "can't reach" },
  ],
};

function answers(...labels: string[]): { saw: Saw; label: string }[] {
  const saws: Saw[] = ['meets', 'off', 'less', 'unseen'];
  return labels.map((label, n) => ({ saw: saws[n] ?? 'unseen', label }));
}

const isOff = (look: Look | undefined) => look?.saw === 'off' || look?.saw === 'less' || look?.saw === 'tool';

export const anyOff = (said: Said) => Object.values(said).some(isOff);

export const allSaid = (looks: LookView[], said: Said) => looks.every((one) => said[one.of]);

/** As it is entered. */
export function entered(looks: LookView[], said: Said): Schemas['MarkLook'][] {
  return looks.flatMap((one) => {
    const look = said[one.of];
    return look ? [{ of: one.of, saw: look.saw, teeth: look.teeth ?? null, way: look.way ?? null }] : [];
  });
}

/** What the keys do for the mark at hand: digits answer it, 0 says that all meet. */
export function useLookKeys(looks: LookView[], said: Said, onSay: (said: Said) => void, isActive: boolean): number {
  const [chosen, setChosen] = useState<number | null>(null);
  const next = looks.findIndex((one) => !said[one.of]);
  const at = chosen ?? (next < 0 ? looks.length - 1 : next);
  const current = looks[at];
  const say = (saw: Saw) => {
    if (!current) return;
    onSay({ ...said, [current.of]: { saw } });
    setChosen(saw === 'off' || saw === 'less' ? at : null);
  };
  const digits: KeyAction[] = (current ? ANSWERS[current.kind] : []).map((one, n) => ({
    keys: [String(n + 1)],
    label: one.label,
    run: () => isActive && say(one.saw),
  }));
  useKeys([
    ...(isActive ? digits : []),
    ...(isActive && looks.length > 0 ? [{ keys: ['0'], label: 'all meet', run: () => onSay(allMeet(looks)) }] : []),
  ]);
  return at;
}

const allMeet = (looks: LookView[]): Said => Object.fromEntries(looks.map((one) => [one.of, { saw: 'meets' }]));

interface LooksProps {
  looks: LookView[];
  said: Said;
  at: number;
  voice: Voice;
  wrongAt: string;
  onSay: (said: Said) => void;
}

export function Looks({ looks, said, at, voice, wrongAt, onSay }: LooksProps) {
  return (
    <div className={classes.looks}>
      {looks.map((one, n) => (
        <Row
          key={one.of}
          one={one}
          look={said[one.of]}
          isCurrent={n === at}
          isWrong={wrongAt === `entry.looks.${one.of}`}
          voice={voice}
          onLook={(look) => onSay({ ...said, [one.of]: look })}
        />
      ))}
    </div>
  );
}

/** What was said of them in one line, so that what is asked next has the room; opened again by whoever was wrong. */
export function LooksSaid({ looks, said, onOpen }: { looks: LookView[]; said: Said; onOpen: () => void }) {
  const unseen = looks.filter((one) => said[one.of]?.saw === 'unseen');
  const met = looks.filter((one) => !unseen.includes(one));
  const names = (of: LookView[]) => of.map((one) => one.name).join(', ');
  return (
    <div className={classes.row} data-said>
      <span>
        <b>{met.length > 0 ? (looks.some((one) => one.kind === 'tool') ? 'As it should be' : 'Meets') : "Can't see"}</b>
        <small>
          {names(met.length > 0 ? met : unseen)}
          {met.length > 0 && unseen.length > 0 && ` · can't see: ${names(unseen)}`}
        </small>
      </span>
      <UnstyledButton onClick={onOpen}>look again</UnstyledButton>
    </div>
  );
}

/** One key for all of them, beside what records it. */
export function AllMeet({ looks, onSay }: Pick<LooksProps, 'looks' | 'onSay'>) {
  return looks.length > 1 && <AllAtOnce words="all meet" onSay={() => onSay(allMeet(looks))} />;
}

/** What 0 says of all that is asked. */
export function AllAtOnce({ words, onSay }: { words: string; onSay: () => void }) {
  return (
    <UnstyledButton className={classes.all} onClick={onSay}>
      <kbd>0</kbd> {words}
    </UnstyledButton>
  );
}

interface RowProps {
  one: LookView;
  look: Look | undefined;
  isCurrent: boolean;
  isWrong: boolean;
  voice: Voice;
  onLook: (look: Look) => void;
}

function Row({ one, look, isCurrent, isWrong, voice, onLook }: RowProps) {
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isCurrent) row.current?.scrollIntoView({ block: 'nearest' });
  }, [isCurrent]);
  const where = one.clock_deg == null ? one.asks : `${sayClock(one.clock_deg, voice.seenFrom)}, ${one.asks}`;
  return (
    <div ref={row} className={classes.row} data-current={isCurrent} data-wrong={isWrong}>
      <span>
        <b>{one.name}</b>
        <small>{where}</small>
        {one.beside && <small className={classes.beside}>{one.beside}</small>}
      </span>
      <fieldset aria-label={one.name}>
        {ANSWERS[one.kind].map((answer, n) => (
          <UnstyledButton
            key={answer.saw}
            aria-pressed={look?.saw === answer.saw}
            data-off={answer.saw !== 'meets' && answer.saw !== 'unseen'}
            onClick={(event) => {
              if (event.detail > 0) event.currentTarget.blur(); // after a click Enter records; it does not choose again
              onLook({ saw: answer.saw });
            }}
          >
            {isCurrent && <i>{n + 1}</i>}
            {answer.label}
          </UnstyledButton>
        ))}
      </fieldset>
      {(look?.saw === 'off' || look?.saw === 'less') && <HowFar look={look} name={one.name} onLook={onLook} />}
    </div>
  );
}

/** How far it is off and which way, as far as anybody can tell. */
function HowFar({ look, name, onLook }: { look: Look; name: string; onLook: (look: Look) => void }) {
  return (
    <div className={classes.far}>
      {look.saw === 'off' && (
        <TextInput
          aria-label={`${name}: teeth off`}
          placeholder="teeth, if counted"
          inputMode="decimal"
          defaultValue={look.teeth == null ? '' : String(look.teeth)}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          onChange={(event) => onLook({ ...look, teeth: Number(event.currentTarget.value.replace(',', '.')) || null })}
        />
      )}
      {(['ahead', 'behind'] as const).map((way) => (
        <UnstyledButton key={way} aria-pressed={look.way === way} onClick={() => onLook({ ...look, way })}>
          {way}
        </UnstyledButton>
      ))}
    </div>
  );
}
