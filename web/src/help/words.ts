/** Finds words of the trade in what is said. */
import type { Schemas } from '../api/client';

type Word = Schemas['Word'];
export type Piece = { text: string; word: Word | null };

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** Signs such as U or TDC are meant only as they are written; words in any case. */
const isSign = (text: string) => text === text.toUpperCase();

/** A sentence in pieces: each word of the trade by itself where it first stands, the rest as it is. */
export function piecesOf(sentence: string, words: readonly Word[]): Piece[] {
  const forms = words.flatMap((word) => [word.word, ...(word.forms ?? [])].map((form) => ({ form, word })));
  if (forms.length === 0) return [{ text: sentence, word: null }];
  forms.sort((a, b) => b.form.length - a.form.length);
  const any = new RegExp(`(?<![\\p{L}\\d])(${forms.map((one) => escaped(one.form)).join('|')})(?![\\p{L}\\d])`, 'giu');
  const seen = new Set<Word>();
  const pieces: Piece[] = [];
  let at = 0;
  for (const found of sentence.matchAll(any)) {
    const text = found[0];
    const word = forms.find((one) =>
      isSign(one.form) ? one.form === text : one.form.toLowerCase() === text.toLowerCase(),
    )?.word;
    if (!word || seen.has(word)) continue;
    seen.add(word);
    pieces.push({ text: sentence.slice(at, found.index), word: null }, { text, word });
    at = found.index + text.length;
  }
  return [...pieces, { text: sentence.slice(at), word: null }].filter((piece) => piece.text !== '');
}
