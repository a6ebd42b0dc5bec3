/** What most jobs do not need at once: it comes when it is first asked for, or when the page has nothing else to do. */
import { type ComponentType, lazy, useState } from 'react';

const loads: (() => Promise<unknown>)[] = [];

/** A component of a module that comes when it is shown, and no sooner: what most never open. */
export function onDemand<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  return lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>;
}

/** A component of a module that is loaded later; once it is there it is shown at once, without a moment of nothing. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  let found: ComponentType<P> | undefined;
  const fetched = async () => {
    found = await load();
    return found;
  };
  loads.push(fetched);
  const Waiting = onDemand(fetched);
  return function Later(props: P) {
    // one and the same from first to last, so that nothing typed is lost when the rest has come
    const [Shown] = useState(() => found ?? Waiting);
    return <Shown {...props} />;
  };
}

/** Brings everything that was left for later, so that no question has to wait for its input; what fails is asked for again in its turn. */
export function bringTheRest(): void {
  for (const load of loads) void load().catch(() => undefined);
}
