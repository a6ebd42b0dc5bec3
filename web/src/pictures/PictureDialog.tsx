/** Takes a picture for the step that is asked, beside how it should look where the lead has named that. */
import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { pictureAt } from '../ledger/pictures';
import { examplesQuery } from './api';
import classes from './PictureDialog.module.css';
import { TakePicture } from './TakePicture';

interface PictureDialogProps {
  serial: string;
  step: Schemas['Step'] | undefined;
  opened: boolean;
  onClose: () => void;
}

export function PictureDialog({ serial, step, opened, onClose }: PictureDialogProps) {
  return (
    <Modal opened={opened} onClose={onClose} title="A picture for the record" size="xl">
      <Example serial={serial} step={step?.key} />
      <TakePicture serial={serial} step={step} onDone={onClose} />
    </Modal>
  );
}

export function Example({ serial, step }: { serial: string; step: string | undefined }) {
  const example = useQuery(examplesQuery(serial)).data?.find((one) => one.step === step);
  if (!example) return null;
  return (
    <figure className={classes.example}>
      <img src={pictureAt(example.digest, true)} alt="How this step should look" />
      <figcaption>
        <b>So it should look</b> {example.serial}, named by {example.by_name}
      </figcaption>
    </figure>
  );
}
