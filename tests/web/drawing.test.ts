/** Angles between frames, places on the spiral, points on a photo. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { between, evenly, inCycle, Turning } from '../../web/src/motion/turning';
import { INNER, OUTER, placeAt, reach, roundPath, spiralPath } from '../../web/src/timing/spiral';
import { marksOf, NOTHING, type Pointed, pointAt, takeBack } from '../../web/src/writer/photo/pointed';

const near = (a: number, b: number) => assert.ok(Math.abs(a - b) < 1e-9, `${a} is not ${b}`);

test('a cycle has 720 degrees, before nought too', () => {
  assert.deepEqual([inCycle(720), inCycle(-1), inCycle(1441)], [0, 719, 1]);
});

test('between two frames a value goes evenly, and round from the last to the first', () => {
  const list = Array.from({ length: 720 }, (_, n) => n % 10);
  near(between(list, 3.25), 3.25);
  near(between(list, 719.5), 4.5);
  near(between(list, -0.5), 4.5);
  assert.equal(evenly({ begin_deg: 10, end_deg: 370 }, 1440), 730);
});

test('a turn goes the shorter way and counts on over the cycle', () => {
  const turning = new Turning(700);
  const stop = turning.watch(() => undefined);
  globalThis.cancelAnimationFrame = () => undefined;
  turning.jumpTo(20);
  assert.deepEqual([turning.now, turning.aim], [740, 20]);
  turning.jumpTo(700);
  assert.equal(turning.now, 700);
  stop();
});

test('TDC is on top, and the spiral goes from inside out in two turns', () => {
  assert.deepEqual([reach(0), reach(720)], [INNER, OUTER]);
  near(placeAt(0, 10, true).y, -10);
  near(placeAt(90, 10, true).x, 10);
  near(placeAt(90, 10, false).x, -10);
});

test('a piece over the end of the cycle is drawn in two', () => {
  assert.equal(roundPath(700, 20, true), spiralPath(700, 720, true) + spiralPath(0, 20, true));
  assert.equal(roundPath(20, 100, true), spiralPath(20, 100, true));
});

test('a third point of a distance begins it anew, and each point can be taken back', () => {
  const aim = { sort: 'known', n: 0 } as const;
  let pointed: Pointed = NOTHING;
  for (const at of [
    [0, 0],
    [3, 4],
    [9, 9],
  ] as [number, number][])
    pointed = pointAt(pointed, aim, at);
  assert.deepEqual(pointed.known[0]?.points, [[9, 9]]);
  assert.deepEqual(takeBack(pointed, aim).known[0]?.points, []);
  assert.deepEqual(NOTHING.known[0]?.points, []);
});

test('only whole distances with a length go out, with a comma as good as a point', () => {
  const known = (mm: string) => ({
    ...NOTHING,
    known: [
      {
        points: [
          [0, 0],
          [3, 4],
        ] as [number, number][],
        mm,
      },
    ],
  });
  assert.deepEqual(marksOf(known('12,5')).known, [{ ax: 0, ay: 0, bx: 3, by: 4, mm: 12.5 }]);
  assert.deepEqual(marksOf(known('')).known, []);
  const axis = pointAt(NOTHING, { sort: 'axis', id: 'cam' }, [1, 2]);
  assert.deepEqual(marksOf(axis).axes, [{ shaft: 'cam', x: 1, y: 2 }]);
  assert.deepEqual(marksOf(takeBack(axis, { sort: 'axis', id: 'cam' })).axes, []);
});
