/** What an entry changed, brought together with what the page had. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { benchAfter } from '../../web/src/ledger/change';

type Had = NonNullable<Parameters<typeof benchAfter>[0]>;
type Answered = Parameters<typeof benchAfter>[1];
const step = (key: string, status = 'open') => ({ key, status });
const line = (seq: number, more = {}) => ({ id: `id-${seq}`, seq, struck: null, ...more });
const had = {
  entries: 2,
  tag: 'a',
  state: { steps: [step('one', 'now'), step('two')], current: 'one' },
  tape: [line(2), line(1)],
} as unknown as Had;
const change = (more: object) =>
  ({ kind: 'change', entries: 3, tag: 'b', order: [], tape: [line(3)], ...more }) as unknown as Answered;

test('steps that stayed as they were are kept, in their order', () => {
  const after = benchAfter(had, change({ state: { steps: [step('one', 'done')], current: 'two' } }));
  assert.deepEqual(after?.state.steps, [step('one', 'done'), step('two')]);
  assert.equal(after?.state.current, 'two');
  assert.deepEqual(
    after?.tape.map((one) => one.seq),
    [3, 2, 1],
  );
  assert.ok(after && !('kind' in after) && !('order' in after));
});

test('another order brings and takes away steps', () => {
  const after = benchAfter(had, change({ order: ['two', 'three'], state: { steps: [step('three')] } }));
  assert.deepEqual(
    after?.state.steps.map((one) => one.key),
    ['two', 'three'],
  );
});

test('a line that was struck is told anew in its place, and none twice', () => {
  const struck = line(1, { struck: { by: 'Bo', reason: 'misread' } });
  const after = benchAfter(had, change({ tape: [line(3), struck], state: { steps: [] } }));
  assert.deepEqual(after?.tape, [line(3), line(2), struck]);
});

test('the whole is taken as it is, and a change of something that is not there asks for the whole', () => {
  assert.equal(benchAfter(had, had as Answered), had);
  assert.equal(benchAfter(undefined, change({ state: { steps: [] } })), undefined);
});

test('what the page had is left as it was', () => {
  const before = JSON.stringify(had);
  benchAfter(
    had,
    change({ order: ['two'], tape: [line(3), line(2, { struck: {} })], state: { steps: [step('two', 'done')] } }),
  );
  assert.equal(JSON.stringify(had), before);
});
