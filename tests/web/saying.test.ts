/** Sentences of the core, as each reader hears them: his unit, his side of the engine. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { growsClockwise, say, sayClock, sayDegrees, sayFine, sayLeft, sayLength } from '../../web/src/app/saying';

const MM = { unit: 'mm', label: 'mm', mm_per_unit: 1, decimals: 2 } as const;
const INCH = { unit: 'in', label: 'in', mm_per_unit: 25.4, decimals: 3 } as const;
const voice = (more: object) =>
  ({ unit: 'mm', factor: MM, seenFrom: 'front', running: 'clockwise', ...more }) as Parameters<typeof say>[1];

test('a length is said in the unit of whoever reads it, a clearance one figure finer', () => {
  assert.equal(sayLength(1, MM), '1.00 mm');
  assert.equal(sayLength(25.4, INCH), '1.000 in');
  assert.equal(sayFine(0.0508, INCH), '0.0020 in');
  assert.equal(say('at {mm:12.7} of lift', voice({ factor: INCH })), 'at 0.500 in of lift');
});

test('a clock position turns over with the side one looks from', () => {
  assert.equal(sayClock(90, 'front'), "3 o'clock");
  assert.equal(sayClock(90, 'flywheel'), "9 o'clock");
  assert.equal(sayClock(0, 'flywheel'), "12 o'clock");
  assert.equal(sayClock(354, 'front'), "12 o'clock");
  assert.equal(sayClock(15, 'front'), 'half past 12');
});

test('the way it runs is said from where one looks; not known is not guessed', () => {
  const sentence = 'Turn it {turn:running}, never {turn:against}.';
  assert.equal(
    say(sentence, voice({})),
    'Turn it clockwise seen from the front, never counter-clockwise seen from the front.',
  );
  assert.equal(
    say(sentence, voice({ seenFrom: 'flywheel' })),
    'Turn it counter-clockwise seen from the flywheel, never clockwise seen from the flywheel.',
  );
  assert.equal(
    say(sentence, voice({ running: null })),
    'Turn it the way the engine runs, never against the way the engine runs.',
  );
});

test('a drawing grows clockwise for one who runs so from the front, and for the other from behind', () => {
  assert.deepEqual(
    [
      growsClockwise({ seenFrom: 'front', running: 'clockwise' }),
      growsClockwise({ seenFrom: 'flywheel', running: 'clockwise' }),
      growsClockwise({ seenFrom: 'flywheel', running: 'counter-clockwise' }),
    ],
    [true, false, true],
  );
});

test('braces that people typed stay as they are', () => {
  assert.equal(say('see {page 12} and {mm:five} {nobody:1}', voice({})), 'see {page 12} and {mm:five} {nobody:1}');
});

test('degrees never say minus nought, and minutes become hours', () => {
  assert.equal(sayDegrees(-0.04), '0.0°');
  assert.equal(sayDegrees(-0.06), '-0.1°');
  assert.equal(sayLeft(89), '89 min left');
  assert.equal(sayLeft(95), '2 h of work left');
});
