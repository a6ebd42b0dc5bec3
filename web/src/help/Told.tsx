/** A sentence in which words of the trade can be tapped, each for what it means. */
import { Popover } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { helpQuery } from './api';
import classes from './Help.module.css';
import { piecesOf } from './words';

export function Told({ text }: { text: string }) {
  const words = useQuery(helpQuery).data?.words ?? [];
  return (
    <>
      {piecesOf(text, words).map(({ text: said, word }, n) =>
        word ? (
          <Popover key={`${n} ${said}`} width={300} position="bottom-start" shadow="none" withinPortal>
            <Popover.Target>
              <button type="button" className={classes.word}>
                {said}
              </button>
            </Popover.Target>
            <Popover.Dropdown className={classes.means}>
              <b>{word.word}</b> {word.means}
            </Popover.Dropdown>
          </Popover>
        ) : (
          said
        ),
      )}
    </>
  );
}
