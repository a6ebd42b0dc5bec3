/** All rooms' inputs and drawings. A new kind of question that is not plain, or a new doing, without its own does not compile. */

import { later } from '../app/later';
import { clearwayInputs } from '../clearway';
import { fitDrawings, fitInputs } from '../fits';
import { foundInputs } from '../found';
import { jointDrawings, jointInputs } from '../joints';
import { lashDrawings, lashInputs } from '../lash';
import {
  type Does,
  type Drawings,
  type Input,
  type Inputs,
  type Kind,
  keyHint,
  type PlainKind,
  type Question,
} from '../ledger/contract';
import { pictureInputs } from '../pictures';
import { runDrawings, runInputs } from '../run';
import { timingDrawings, timingInputs } from '../timing';
import { SignOff } from './SignOff';

const INPUTS: Inputs<Exclude<Kind, PlainKind>> = {
  ...runInputs,
  ...clearwayInputs,
  ...foundInputs,
  ...jointInputs,
  ...fitInputs,
  ...lashInputs,
  ...timingInputs,
  ...pictureInputs,
  sign_off: { Input: SignOff, keys: [keyHint('Enter', 'confirm')] },
};

const PLAIN: Input<PlainKind> = {
  Input: later(async () => (await import('../ledger/PlainInput')).PlainInput),
  keys: [],
  also: plainKeys,
};

/** The input of a kind of question: its own, or the one of all that are plain. */
export function inputOf<K extends Kind>(kind: K): Input<K> {
  const own: Partial<Record<Kind, unknown>> = INPUTS;
  return (own[kind] ?? PLAIN) as Input<K>;
}

/** The keys of a plain question, for the strip. */
function plainKeys(question: Question) {
  if (!('answers' in question)) return [];
  const { answers, first_by_enter } = question;
  const hasWords = answers.some((one) => one.words);
  const byEnter = keyHint('Enter', hasWords ? 'record' : 'confirm');
  if (answers.length < 2) return [byEnter];
  const choose = keyHint(`1-${answers.length}`, 'choose');
  if (first_by_enter) return [choose, keyHint('Enter', 'the first')];
  return hasWords ? [choose, byEnter] : [choose];
}

export const DRAWINGS: Drawings<Does> = {
  ...runDrawings,
  ...jointDrawings,
  ...fitDrawings,
  ...lashDrawings,
  ...timingDrawings,
  sign: later(async () => (await import('./ProofDrawing')).ProofDrawing),
};
