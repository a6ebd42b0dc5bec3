/** Every picture of an engine: small ones by step, one large with what is drawn on it, walked by keys, beside how the step should look. */
import { Button, UnstyledButton } from '@mantine/core';
import { useDocumentTitle } from '@mantine/hooks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate, useParams, useSearch } from '@tanstack/react-router';
import { useState } from 'react';
import { askAgain } from '../api/again';
import { type Schemas, sentenceOf } from '../api/client';
import { KeyStrip } from '../app/KeyStrip';
import { sayMoment } from '../app/times';
import { useVoice } from '../app/voice';
import { pictureAt } from '../ledger/pictures';
import { examplesQuery, nameExample, picturesQuery } from '../pictures/api';
import { DrawLater } from '../pictures/DrawLater';
import { DrawnOn } from '../pictures/DrawnOn';
import { PictureDialog } from '../pictures/PictureDialog';
import { BenchHead } from './BenchHead';
import classes from './BenchPictures.module.css';
import twin from './BenchTwin.module.css';
import { WithBench } from './WithBench';

export function BenchPictures() {
  const { serial } = useParams({ from: '/bench/$serial/pictures' });
  useDocumentTitle(`${serial} · pictures · Gurvo`);
  return <WithBench serial={serial}>{(bench) => <Screen bench={bench} />}</WithBench>;
}

function Screen({ bench }: { bench: Schemas['Bench'] }) {
  const { engine, state } = bench;
  const voice = useVoice(engine.running_direction);
  const navigate = useNavigate();
  const { at } = useSearch({ from: '/bench/$serial/pictures' });
  const { data = [], isPending } = useQuery(picturesQuery(engine.serial, bench.entries));
  const [taking, setTaking] = useState(false);
  const [drawing, setDrawing] = useState(false);
  const found = data.findIndex((one) => one.digest === at);
  const n = found < 0 ? data.length - 1 : found;
  const picture = data[n];
  const go = (to: number) => {
    const next = data[Math.max(0, Math.min(data.length - 1, to))];
    if (next)
      void navigate({
        to: '/bench/$serial/pictures',
        params: { serial: engine.serial },
        search: { at: next.digest },
        replace: true,
      });
  };
  return (
    <div className={twin.screen}>
      <BenchHead engine={engine} permission={state.permission} seenFrom={voice.seenFrom} other="bench" />
      <main className={classes.pictures}>
        {picture ? (
          <Large
            engine={engine}
            picture={picture}
            of={`${n + 1} of ${data.length}`}
            onDraw={engine.may_record ? () => setDrawing(true) : undefined}
          />
        ) : (
          <div className={classes.none}>
            <h1>{isPending ? 'Fetching the pictures' : 'No pictures yet'}</h1>
            {!isPending && (
              <p>
                Marks before the cover goes on, the letter on a cap, a scored journal: taken here they stay with the
                engine.
              </p>
            )}
          </div>
        )}
        <nav className={classes.strip} aria-label="All pictures">
          {engine.may_record && (
            <Button className={classes.take ?? ''} onClick={() => setTaking(true)}>
              Take a picture
            </Button>
          )}
          {data.map((one, place) => (
            <UnstyledButton
              key={one.seq}
              aria-current={place === n}
              ref={(node) => {
                if (place === n) node?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
              }}
              aria-label={`Picture ${place + 1}: ${one.shows || one.title || one.place}`}
              onClick={() => go(place)}
            >
              <img className={classes.small} src={pictureAt(one.digest, true)} alt="" loading="lazy" />
            </UnstyledButton>
          ))}
        </nav>
      </main>
      <KeyStrip
        actions={[
          { keys: ['ArrowRight', 'ArrowDown'], shown: '→', label: 'next', run: () => go(n + 1) },
          { keys: ['ArrowLeft', 'ArrowUp'], shown: '←', label: 'before', run: () => go(n - 1) },
          ...(engine.may_record ? [{ keys: ['q'], label: 'take a picture', run: () => setTaking(true) }] : []),
          ...(engine.may_record && picture ? [{ keys: ['d'], label: 'draw on it', run: () => setDrawing(true) }] : []),
          {
            keys: ['w'],
            label: 'bench',
            run: () => navigate({ to: '/bench/$serial', params: { serial: engine.serial } }),
          },
        ]}
      />
      {drawing && picture && (
        <DrawLater key={picture.seq} serial={engine.serial} picture={picture} onClose={() => setDrawing(false)} />
      )}
      {taking && (
        <PictureDialog serial={engine.serial} step={undefined} opened={taking} onClose={() => setTaking(false)} />
      )}
    </div>
  );
}

interface LargeProps {
  engine: Schemas['EngineHead'];
  picture: Schemas['PictureView'];
  of: string;
  onDraw: (() => void) | undefined;
}

function Large({ engine, picture, of, onDraw }: LargeProps) {
  const example = useQuery(examplesQuery(engine.serial)).data?.find((one) => one.step === picture.step);
  const isOther = example && example.digest !== picture.digest;
  const where = [picture.title, picture.place].filter(Boolean).join(', ');
  return (
    <section className={classes.large} aria-label="Picture">
      <header>
        <h1>{picture.shows || where || 'Picture'}</h1>
        <p className={classes.quiet}>
          {picture.shows && where ? `${where} · ` : ''}
          {sayMoment(picture.at)} · {picture.by} · {of}
        </p>
        {picture.is_past && <p className={classes.past}>Its step was opened again since: take another.</p>}
      </header>
      <div className={classes.beside} data-two={isOther}>
        <DrawnOn src={pictureAt(picture.digest)} alt={picture.shows || where || 'Picture'} drawn={picture.drawn} />
        {isOther && (
          <figure className={classes.example}>
            <img className={classes.shown} src={pictureAt(example.digest)} alt="How this step should look" />
            <figcaption>
              <b>So it should look</b>: {example.serial}, named by {example.by_name}
            </figcaption>
          </figure>
        )}
      </div>
      <footer>
        <code title="SHA-256 of the picture; it stands in the ledger's chain">{picture.digest.slice(0, 16)}</code>
        {onDraw && (
          <Button variant="default" onClick={onDraw}>
            Draw on it
          </Button>
        )}
        {example && !isOther && <b>So this step should look.</b>}
        {engine.may_sign && picture.step && (isOther || !example) && (
          <NameExample serial={engine.serial} step={picture.step} digest={picture.digest} />
        )}
      </footer>
    </section>
  );
}

function NameExample({ serial, step, digest }: { serial: string; step: string; digest: string }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState('');
  const name = async () => {
    try {
      await nameExample(serial, step, digest);
      await askAgain(queries, { queryKey: examplesQuery(serial).queryKey });
    } catch (error) {
      setWrong(sentenceOf(error));
    }
  };
  return (
    <span>
      <Button variant="default" onClick={() => void name()}>
        So this step should look
      </Button>
      {wrong && <span role="alert">{wrong}</span>}
    </span>
  );
}
