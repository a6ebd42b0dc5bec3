/** A picture taken with the telephone's own camera, chosen from its files or pasted; a ring or an arrow and a few words beside it. */
import { Button, TextInput } from '@mantine/core';
import { type ChangeEvent, type FormEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { usePerson } from '../app/session';
import { type Outcome, useRecord } from '../ledger/outbox';
import type { OnPicture } from './api';
import { DrawOn } from './DrawOn';
import { lighter } from './lighter';
import classes from './TakePicture.module.css';

interface TakePictureProps {
  serial: string;
  step: Schemas['Step'] | undefined;
  onDone: () => void;
}

/** Bytes, and not yet a picture: whoever is asked for one has chosen nothing. */
const NOT_KEPT = { digest: '0'.repeat(64), width: 1, height: 1 };

export function TakePicture({ serial, step, onDone }: TakePictureProps) {
  const { person } = usePerson();
  const record = useRecord(serial, person.username);
  const [file, setFile] = useState<Blob | null>(null);
  const [drawn, setDrawn] = useState<OnPicture[]>([]);
  const [shows, setShows] = useState('');
  const [place, setPlace] = useState('');
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [busy, setBusy] = useState(false);
  const src = useMemo(() => (file ? URL.createObjectURL(file) : ''), [file]);
  useEffect(() => () => URL.revokeObjectURL(src), [src]);
  usePasted(setFile);
  const button = useRef<HTMLButtonElement>(null);
  // what was chosen takes the place of what chose it: the focus goes on to what records it
  useEffect(() => {
    if (file) button.current?.focus();
  }, [file]);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (!file || busy) return;
    setBusy(true);
    const entry = {
      kind: 'picture' as const,
      ...NOT_KEPT,
      step: step?.key ?? null,
      title: step?.title ?? null,
      place,
      shows,
      drawn,
    };
    const said = await record(
      'picture',
      'Picture',
      shows || place || (step?.title ?? ''),
      entry,
      '',
      await lighter(file),
    );
    setBusy(false);
    if (said.kind === 'refused') return setOutcome(said);
    onDone();
  };
  if (!file) return <Choose onChoose={setFile} />;
  return (
    <div className={classes.take}>
      <DrawOn src={src} drawn={drawn} onDraw={setDrawn}>
        <Button variant="default" onClick={() => setFile(null)}>
          Another picture
        </Button>
      </DrawOn>
      <form className={classes.take} onSubmit={(event) => void send(event)}>
        <div className={classes.about}>
          <TextInput
            label="What it shows"
            maxLength={300}
            value={shows}
            onChange={(event) => setShows(event.currentTarget.value)}
          />
          <TextInput
            label="Where on the engine"
            placeholder="cylinder 3"
            maxLength={80}
            value={place}
            onChange={(event) => setPlace(event.currentTarget.value)}
          />
        </div>
        {outcome?.kind === 'refused' && <p role="alert">{outcome.sentence}</p>}
        <div className={classes.foot}>
          <span>
            {step ? `To “${step.title}”.` : 'To the engine, not to a step.'} Where and when it was taken is left out.
          </span>
          <Button ref={button} type="submit" loading={busy}>
            Record the picture
          </Button>
        </div>
      </form>
    </div>
  );
}

function Choose({ onChoose }: { onChoose: (file: Blob) => void }) {
  const camera = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  const chosen = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.currentTarget.files?.[0];
    if (file) onChoose(file);
  };
  return (
    <div className={classes.choose}>
      <Button size="lg" onClick={() => camera.current?.click()} data-autofocus>
        Take a picture
      </Button>
      <Button size="lg" variant="default" onClick={() => files.current?.click()}>
        Choose a file
      </Button>
      <p>Or paste one. JPEG, PNG, WebP or HEIC, up to 40 MB.</p>
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label="Camera"
        hidden
        onChange={chosen}
      />
      <input ref={files} type="file" accept="image/*,.heic,.heif" aria-label="File" hidden onChange={chosen} />
    </div>
  );
}

function usePasted(onPaste: (file: Blob) => void): void {
  useEffect(() => {
    const pasted = (event: ClipboardEvent) => {
      const file = [...(event.clipboardData?.files ?? [])].find((one) => one.type.startsWith('image/'));
      if (file) onPaste(file);
    };
    document.addEventListener('paste', pasted);
    return () => document.removeEventListener('paste', pasted);
  }, [onPaste]);
}
