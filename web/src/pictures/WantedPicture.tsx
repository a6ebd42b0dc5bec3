/** A picture is wanted before a step is done: said beside its question, with one touch to take it. It holds nothing back. */
import { Button } from '@mantine/core';
import { Example } from './PictureDialog';
import classes from './WantedPicture.module.css';

interface WantedPictureProps {
  serial: string;
  step: string;
  of: string;
  onTake: () => void;
}

export function WantedPicture({ serial, step, of, onTake }: WantedPictureProps) {
  return (
    <div className={classes.wanted} role="note" aria-label="A picture is wanted">
      <Example serial={serial} step={step} />
      <p>A picture is wanted first: {of}.</p>
      <Button variant="default" onClick={onTake}>
        Take it
      </Button>
    </div>
  );
}
