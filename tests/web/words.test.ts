/** Words of the trade, found where they stand in what is said. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { piecesOf } from '../../web/src/help/words';

const WORDS = [
  { word: 'dial', forms: ['dial indicator'], means: '' },
  { word: 'U', forms: [], means: '' },
  { word: 'TDC', forms: ['true TDC'], means: '' },
];
const found = (sentence: string) =>
  piecesOf(sentence, WORDS)
    .filter((piece) => piece.word)
    .map((piece) => piece.text);

test('the longest form is found, in any case, and only as a word by itself', () => {
  assert.deepEqual(found('Dial indicator on the valve; dialled in.'), ['Dial indicator']);
  assert.deepEqual(found('Find true TDC'), ['true TDC']);
});

test('a sign is meant only as it is written', () => {
  assert.deepEqual(found('until u see U there'), ['U']);
});

test('each word once, and no letter of the sentence is lost', () => {
  const sentence = 'A dial, a dial, and (TDC).';
  const pieces = piecesOf(sentence, WORDS);
  assert.deepEqual(found(sentence), ['dial', 'TDC']);
  assert.equal(pieces.map((piece) => piece.text).join(''), sentence);
  assert.equal(
    piecesOf(sentence, [])
      .map((piece) => piece.text)
      .join(''),
    sentence,
  );
});
