/** What of the engine's picture is shown, and what a small screen looks at closely. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { inside, isShown, isThere, nameOf, zoomed } from '../../web/src/scene/shown';

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
