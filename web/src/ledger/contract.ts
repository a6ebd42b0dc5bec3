/** What an input of a room is given and gives. Lies below all rooms and knows none of them. */
import type { ComponentType } from 'react';
import type { Schemas } from '../api/client';
import type { KeyAction } from '../app/keys';
import type { Voice } from '../app/saying';
import type { Outcome } from './outbox';

export type Question = Schemas['Step']['questions'][number];
export type Kind = Question['kind'];
export type QuestionOf<K extends Kind> = Extract<Question, { kind: K }>;
export type Does = Schemas['Step']['does'];
export type EntryBody = Schemas['EntryIn']['entry'];

/** Why an answer was not taken, and whether somebody may have it taken all the same. */
export interface Refusal {
  sentence: string;
  field: string;
  wayOut: string;
}

export interface InputProps<Q extends Question = Question> {
  bench: Schemas['Bench'];
  question: Q;
  voice: Voice;
  wrong: Refusal | null;
  busy: boolean;
  answer: (value: string, entry: EntryBody) => Promise<Outcome['kind']>;
}

/** An input for one kind of question, and the keys it listens to, for the strip. */
export interface Input<K extends Kind> {
  Input: ComponentType<InputProps<QuestionOf<K>>>;
  /** What is drawn while it is asked, where that is not what its step draws. */
  Drawing?: ComponentType<DrawingProps>;
  keys: KeyAction[];
  /** Keys of what is drawn beside it for some of its questions. */
  also?: (question: Question) => KeyAction[];
}

/** Kinds of questions that bring all their answers: one input draws them all. */
export type PlainKind = Extract<Question, { answers: Schemas['PlainAnswer'][] }>['kind'];

/** A kind without its input does not compile, unless it is plain. */
export type Inputs<K extends Kind> = { [P in K]: Input<P> };

export interface DrawingProps {
  bench: Schemas['Bench'];
  question: Question | undefined;
  voice: Voice;
  /** Go to another question, by its key. */
  choose: (key: string) => void;
}

/** What is drawn while something is done; a doing without its drawing does not compile. */
export type Drawings<D extends Does> = { [P in D]: ComponentType<DrawingProps> };

/** A key of an input, for the strip; the input itself listens for it. */
export const keyHint = (shown: string, label: string): KeyAction => ({
  keys: [label],
  shown,
  label,
  run: () => undefined,
});
