/** Finds words of the trade in what is said. */
import type { Schemas } from '../api/client';

type Word = Schemas['Word'];
export type Piece = { text: string; word: Word | null };

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** Signs such as U or TDC are meant only as they are written; words in any case. */
const isSign = (text: string) => text === text.toUpperCase();

interface Finder {
  any: RegExp;
  wordOf: (said: string) => Word | undefined;
}

/** How a list of words is found, put together once: the bench asks with whatever is drawn anew. */
const finders = new WeakMap<readonly Word[], Finder>();

function finderOf(words: readonly Word[]): Finder {
  const known = finders.get(words);
  if (known) return known;
  const forms = words.flatMap((word) => [word.word, ...(word.forms ?? [])].map((form) => ({ form, word })));
  forms.sort((a, b) => b.form.length - a.form.length);
  const one = forms.map(({ form }) => escaped(form)).join('|');
  const wordOf = (said: string) =>
    forms.find(({ form }) => (isSign(form) ? form === said : form.toLowerCase() === said.toLowerCase()))?.word;
  const finder = { any: new RegExp(`(?<![\\p{L}\\d])(${one})(?![\\p{L}\\d])`, 'giu'), wordOf };
  finders.set(words, finder);
  return finder;
}

/** A sentence in pieces: each word of the trade by itself where it first stands, the rest as it is. */
export function piecesOf(sentence: string, words: readonly Word[]): Piece[] {
  if (words.length === 0) return [{ text: sentence, word: null }];
  const { any, wordOf } = finderOf(words);
  const seen = new Set<Word>();
  const pieces: Piece[] = [];
  let at = 0;
  for (const found of sentence.matchAll(any)) {
    const text = found[0];
    const word = wordOf(text);
    if (!word || seen.has(word)) continue;
    seen.add(word);
    pieces.push({ text: sentence.slice(at, found.index), word: null }, { text, word });
    at = found.index + text.length;
  }
  return [...pieces, { text: sentence.slice(at), word: null }].filter((piece) => piece.text !== '');
}
