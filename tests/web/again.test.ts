/** What was changed while the answer of before was still under way. */
import assert from 'node:assert/strict';
import test from 'node:test';
import { QueryClient, QueryObserver } from '../../web/node_modules/@tanstack/query-core';
import { askAgain, isNow } from '../../web/src/api/again';

/** A list on a server that answers when it is told to, with what stood there when it was asked. */
function slowServer() {
  let stands = ['old'];
  const waiting: (() => void)[] = [];
  const keys = {
    queryKey: ['keys'],
    queryFn: () => {
      const asked = stands;
      return new Promise<string[]>((resolve) => waiting.push(() => resolve(asked)));
    },
  };
  const queries = new QueryClient();
  const drawn = new QueryObserver(queries, keys);
  const stop = drawn.subscribe(() => undefined);
  const answerAll = async () => {
    for (let turn = 0; turn < 5; turn += 1) {
      for (const answer of waiting.splice(0)) answer();
      await new Promise((resolve) => setTimeout(resolve));
    }
  };
  const change = (now: string[]) => {
    stands = now;
  };
  const end = () => {
    stop();
    queries.clear();
  };
  return { queries, keys, answerAll, end, change, drawn };
}

test('a list asked for the first time before the change is asked again', async () => {
  const server = slowServer();
  server.change(['new']);
  const settled = askAgain(server.queries, { queryKey: server.keys.queryKey });
  await server.answerAll();
  await settled;
  assert.deepEqual(server.drawn.getCurrentResult().data, ['new']);
  server.end();
});

test('what is known now is not overwritten by an older answer', async () => {
  const server = slowServer();
  isNow(server.queries, server.keys.queryKey, ['told']);
  await server.answerAll();
  assert.deepEqual(server.drawn.getCurrentResult().data, ['told']);
  server.end();
});
