/**
 * Where the twin's crank stands. Drawings listen to it and move their own lines: turning does not pass through React, so that it
 * keeps up with a held key. The angle counts on over 720, so that no wheel ever jumps back.
 */
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';

const CYCLE = 720;
const EASE_MS = 150;

/** The angle within the cycle, 0 to 720. */
export function inCycle(deg: number): number {
  return ((deg % CYCLE) + CYCLE) % CYCLE;
}

export class Turning {
  private at: number;
  private target: number;
  private begun = 0;
  private from: number;
  private frame = 0;
  private readonly watchers = new Set<(deg: number) => void>();

  constructor(start: number) {
    this.at = start;
    this.from = start;
    this.target = start;
  }

  /** Where it stands, counted on over cycles. */
  get now(): number {
    return this.at;
  }

  /** Where it is going, within the cycle. */
  get aim(): number {
    return inCycle(this.target);
  }

  watch(tell: (deg: number) => void): () => void {
    this.watchers.add(tell);
    tell(this.at);
    return () => {
      this.watchers.delete(tell);
    };
  }

  turn(by: number): void {
    this.go(this.target + by);
  }

  /** Goes to an angle of the cycle by the shorter way. */
  turnTo(deg: number): void {
    this.go(this.nearest(deg));
  }

  /** Stands there at once, as a slider does under a finger. */
  jumpTo(deg: number): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    this.target = this.nearest(deg);
    this.stand(this.target);
  }

  private nearest(deg: number): number {
    const way = inCycle(deg - this.target);
    return this.target + (way > CYCLE / 2 ? way - CYCLE : way);
  }

  private go(target: number): void {
    this.target = target;
    this.from = this.at;
    this.begun = performance.now();
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) this.stand(target);
    else if (!this.frame) this.frame = requestAnimationFrame(this.step);
  }

  private readonly step = (now: number): void => {
    const share = Math.min(1, Math.max(0, (now - this.begun) / EASE_MS));
    this.stand(this.from + (this.target - this.from) * share);
    this.frame = share < 1 ? requestAnimationFrame(this.step) : 0;
  };

  private stand(deg: number): void {
    this.at = deg;
    for (const tell of this.watchers) tell(deg);
  }
}

/** Calls back at every change of the angle, before the next paint. */
export function useAngle(turning: Turning, apply: (deg: number) => void): void {
  const latest = useRef(apply);
  latest.current = apply;
  useLayoutEffect(() => turning.watch((deg) => latest.current(deg)), [turning]);
  // whatever was drawn anew, such as another cylinder's lobes, has to stand right as well
  useLayoutEffect(() => latest.current(turning.now));
}

/** The angle once it has come to rest for a moment, within the cycle, to a tenth. */
export function useRestingAngle(turning: Turning, quietMs = 120): number {
  const [rest, setRest] = useState(() => turning.aim);
  useEffect(() => {
    let timer = 0;
    const stop = turning.watch((deg) => {
      clearTimeout(timer);
      timer = window.setTimeout(() => setRest(Math.round(inCycle(deg) * 10) / 10), quietMs);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [turning, quietMs]);
  return rest;
}

/** A value between two frames; the list goes round. */
export function between(list: readonly number[], deg: number): number {
  const whole = Math.floor(inCycle(deg));
  const a = list[whole % list.length] ?? 0;
  const b = list[(whole + 1) % list.length] ?? a;
  return a + (b - a) * (inCycle(deg) - whole);
}

/** A value that grows evenly from the begin of a cycle to its end, counted on over cycles. */
export function evenly({ begin_deg, end_deg }: Schemas['Sweep'], deg: number): number {
  return begin_deg + ((end_deg - begin_deg) * deg) / CYCLE;
}
