/** A sound when a working time runs out, for whoever wants one; kept in this browser. */
import { useLocalStorage } from '@mantine/hooks';
import { useEffect, useRef } from 'react';

export interface Running {
  ends_at: string | null;
  clears: boolean;
}

export function useSound() {
  return useLocalStorage({ key: 'gurvo.sound', defaultValue: false, getInitialValueInEffect: false });
}

/** Two short notes; nothing where the browser allows no sound yet. */
export function ring(): void {
  const audio = new AudioContext();
  for (const [at, hertz] of [
    [0, 660],
    [0.22, 880],
  ] as const) {
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    tone.frequency.value = hertz;
    loud.gain.setValueAtTime(0.2, audio.currentTime + at);
    loud.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + at + 0.2);
    tone.connect(loud).connect(audio.destination);
    tone.start(audio.currentTime + at);
    tone.stop(audio.currentTime + at + 0.2);
  }
}

/** Rings once for each that runs out while somebody looks; not for what was over before, nor for what only cures. */
export function useAlarm(running: Running[], now: number): void {
  const [isOn] = useSound();
  const before = useRef(now);
  useEffect(() => {
    const ended = running.some(
      ({ ends_at, clears }) => ends_at && !clears && Date.parse(ends_at) > before.current && Date.parse(ends_at) <= now,
    );
    before.current = now;
    if (ended && isOn) ring();
  }, [running, now, isOn]);
}
