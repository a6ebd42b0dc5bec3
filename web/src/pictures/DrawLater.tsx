/** Draws on a picture that was taken before, or says anew what it shows; the picture itself stays as it is. */
import { Button, Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { useRecord } from '../ledger/outbox';
import { pictureAt } from '../ledger/pictures';
import { DrawOn } from './DrawOn';
import classes from './TakePicture.module.css';

interface DrawLaterProps {
  serial: string;
  picture: Schemas['PictureView'];
  onClose: () => void;
}

export function DrawLater({ serial, picture, onClose }: DrawLaterProps) {
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const [drawn, setDrawn] = useState(picture.drawn);
  const [shows, setShows] = useState(picture.shows);
  const [wrong, setWrong] = useState('');
  const send = async () => {
    const entry = { kind: 'picture_drawn_on' as const, digest: picture.digest, shows, drawn };
    const said = await record('picture_drawn_on', 'Drawn on a picture', shows, entry);
    if (said.kind === 'refused') return setWrong(said.sentence);
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Draw on the picture" size="xl">
      <div className={classes.take}>
        <DrawOn src={pictureAt(picture.digest)} drawn={drawn} onDraw={setDrawn} />
        <TextInput
          label="What it shows"
          maxLength={300}
          value={shows}
          onChange={(event) => setShows(event.currentTarget.value)}
        />
        {wrong && <p role="alert">{wrong}</p>}
        <div className={classes.foot}>
          <span>It is laid over the picture, never in it.</span>
          <Button onClick={() => void send()} data-autofocus>
            Record it
          </Button>
        </div>
      </div>
    </Modal>
  );
}
