/** What of the engine's picture is shown, and what a small screen looks at closely. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { fromFlywheel, inside, isShown, isThere, nameOf, zoomed } from '../../web/src/scene/shown';
import { placed, standingAt } from '../../web/src/scene/turned';

const box = (x: number, y: number, w: number, h: number) => ({
  form: 'box' as const,
  x,
  y,
  w,
  h,
  text: '',
  faint: false,
});
const part = (id: string, hidden_by: string[] = []) => ({
  id,
  name: 'Pistons',
  where: '',
  says: '',
  hidden_by,
  shapes: [box(10, 10, 4, 2)],
});
const view = { looking: 'side' as const, left: 0, top: 0, width: 100, height: 80, parts: [], sketched: [] };

test('what a head hides is seen again once it is undone, or asked', () => {
  const pistons = part('pistons', ['heads:row']);
  assert.equal(isShown(pistons, { pistons: 'in', 'heads:row': 'loose' }, []), false);
  assert.equal(isShown(pistons, { pistons: 'in', 'heads:row': 'undone' }, []), true);
  assert.equal(isShown(pistons, { pistons: 'in', 'heads:row': 'in' }, ['pistons']), true);
});

test('what nobody says is in is left out, and what is to come bears no numbers', () => {
  assert.equal(isShown(part('sump'), {}, []), false);
  assert.equal(isThere(part('mains'), { mains: 'to come' }, []), false);
  assert.equal(isThere(part('mains'), { mains: 'to come' }, ['mains']), true);
  assert.equal(nameOf(part('pistons'), { pistons: 'loose' }, ['pistons']), 'Pistons: finger tight, this step');
});

test('a small screen looks at what is asked, never at less than half nor beyond the edge', () => {
  const near = zoomed(view, [part('pistons')], ['pistons']);
  assert.deepEqual([near.left, near.top], [0, 0]);
  assert.ok(near.width >= 50 && near.width < 60 && near.height >= 40 && near.height < 50);
  assert.deepEqual(zoomed(view, [part('pistons')], []), view);
});

test('words that would be cut off are left out', () => {
  const words = { ...box(98, 10, 0, 0), form: 'words' as const, text: 'flywheel' };
  assert.deepEqual(inside([words, { ...words, x: 50 }], view, 2), [{ ...words, x: 50 }]);
});

test('from the flywheel the same is seen from the other side, and twice round is as before', () => {
  const line = { ...box(10, 20, 30, 5), form: 'line' as const };
  const seen = { ...view, parts: [{ ...part('crank'), shapes: [line] }] };
  const [turned] = fromFlywheel(seen).parts[0]?.shapes ?? [];
  assert.deepEqual([turned?.x, turned?.y, turned?.w, turned?.h], [90, 20, -30, 5]);
  const above = { ...seen, looking: 'above' as const };
  const [round] = fromFlywheel(above).parts[0]?.shapes ?? [];
  assert.deepEqual([round?.x, round?.y, round?.w, round?.h], [90, 60, -30, -5]);
  assert.deepEqual(fromFlywheel(fromFlywheel(above)), above);
});

test('between two angles what moves stands between, backwards and over a whole turn', () => {
  const side = {
    every_deg: 90,
    frames: [
      [0, 1],
      [10, 1],
      [20, 1],
      [10, 1],
    ],
  };
  assert.deepEqual(standingAt(side, 45), [5, 1]);
  assert.deepEqual(standingAt(side, -45), [5, 1]);
  assert.deepEqual(standingAt(side, 360 + 180), [20, 1]);
  assert.deepEqual(placed('rect', 10, 4), [
    ['y', '8.0'],
    ['height', '4.0'],
  ]);
  assert.deepEqual(placed('line', 10, 4), [
    ['y1', '10.0'],
    ['y2', '14.0'],
  ]);
  assert.deepEqual(placed('circle', 10, 4), [['cy', '10.0']]);
});
