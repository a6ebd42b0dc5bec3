/** Readings of an instrument as they come, sixty a second: handed to a function, never to React's state, so that a page stays quick. */
import { useEffect, useRef } from 'react';
import { client, type Schemas } from '../api/client';

export type Reading = Partial<Schemas['LiveReading']>;

/** Listens to an instrument as long as it is asked for; `hear` is called with every reading. */
export function useLive(code: string | null, hear: (reading: Reading) => void, beside = ''): void {
  const heard = useRef(hear);
  heard.current = hear;
  useEffect(() => {
    if (code === null) return;
    const path = `/api/instruments/${encodeURIComponent(code)}/live?beside=${encodeURIComponent(beside)}`;
    const source = new EventSource(path);
    source.onmessage = (event) => heard.current(JSON.parse(event.data));
    source.onerror = () => heard.current({ trouble: `${code} cannot be read just now; type the figure.` });
    return () => source.close();
  }, [code, beside]);
}

/** Tells a wrench what is pulled next, or whoever turns the crank how far. */
export async function tell(code: string, told: Schemas['Told']): Promise<void> {
  await client.POST('/api/instruments/{code}/target', { params: { path: { code } }, body: told });
}
