/** Where the keys were before a dialog came over the page. */
import { useLayoutEffect } from 'react';

/** Gives the focus back once what lay over the page is gone: a dialog that is mounted open remembers nothing by itself. */
export function useFocusBack(isOver: boolean): void {
  useLayoutEffect(() => {
    if (!isOver) return undefined;
    const before = document.activeElement;
    return () => {
      if (before instanceof HTMLElement && before.isConnected) before.focus();
    };
  }, [isOver]);
}
