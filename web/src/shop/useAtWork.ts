/** Whether somebody is at this machine: hands on keys or glass count, an open page does not. */
import { useEffect, useRef } from 'react';
import { client, type Schemas } from '../api/client';
import { useLeave } from '../app/session';

const TOLD_EVERY_MS = 50_000;
const LOOKED_EVERY_MS = 5_000;

/** Tells the server that somebody is at work, and leaves the bench when nobody has been for as long as the shop allows. */
export function useAtWork({ left_alone, alone_minutes }: Schemas['Session']): void {
  const leave = useRef(useLeave());
  useEffect(() => {
    if (left_alone || alone_minutes === 0) return;
    let moved = Date.now();
    let told = moved;
    const onMove = () => {
      moved = Date.now();
    };
    const look = () => {
      if (Date.now() - moved > alone_minutes * 60_000) leave.current();
      else if (moved > told && Date.now() - told > TOLD_EVERY_MS) {
        told = Date.now();
        void client.POST('/api/session/here').catch(() => undefined);
      }
    };
    const timer = setInterval(look, LOOKED_EVERY_MS);
    window.addEventListener('keydown', onMove);
    window.addEventListener('pointerdown', onMove);
    return () => {
      clearInterval(timer);
      window.removeEventListener('keydown', onMove);
      window.removeEventListener('pointerdown', onMove);
    };
  }, [left_alone, alone_minutes]);
}
