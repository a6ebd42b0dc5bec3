/** A trace from a file, sent in pieces: how far it is, and stopped when asked. */
import { useRef, useState } from 'react';
import { client, type Schemas, sentenceOf, unwrap } from '../api/client';

const PIECE = 650_000;

export interface Sending {
  rows: number;
  share: number;
}

export function useTraceFile(unit: Schemas['TraceBegin']['unit']) {
  const [sending, setSending] = useState<Sending | null>(null);
  const [wrong, setWrong] = useState('');
  const stopped = useRef(false);
  const read = async (file: File): Promise<Schemas['TraceRead'] | null> => {
    stopped.current = false;
    setWrong('');
    try {
      const { id } = unwrap(await client.POST('/api/traces', { body: { unit } }));
      return await sendPieces(file, id);
    } catch (error) {
      setWrong(sentenceOf(error));
      return null;
    } finally {
      setSending(null);
    }
  };
  const sendPieces = async (file: File, name: string) => {
    const path = { params: { path: { name } } };
    for (let at = 0; at < Math.max(file.size, 1); at += PIECE) {
      const text = await file.slice(at, at + PIECE).text();
      const is_last = at + PIECE >= file.size;
      const now = unwrap(await client.PUT('/api/traces/{name}', { ...path, body: { text, is_last } }));
      if (stopped.current) {
        await client.DELETE('/api/traces/{name}', path);
        return null;
      }
      setSending({ rows: now.rows, share: Math.min(1, (at + PIECE) / file.size) });
      if (now.read) return now.read;
    }
    return null;
  };
  const stop = () => {
    stopped.current = true;
  };
  return { read, sending, stop, wrong };
}
