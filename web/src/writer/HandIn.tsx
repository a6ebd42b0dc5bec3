/** Handing a draft in: what changes against the family's newest revision, why, and that engines stay on theirs. */
import { Button, Modal, TextInput } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { askAgain } from '../api/again';
import { type Schemas, sentenceOf } from '../api/client';
import page from '../app/Page.module.css';
import { Changes } from '../engine/Changes';
import { type Draft, handIn } from './api';
import { forgetGround } from './photo/photos';
import classes from './Writer.module.css';

interface HandInProps {
  draft: Draft;
  walk: Schemas['Walk'] | undefined;
  onClose: () => void;
}

export function HandIn({ draft, walk, onClose }: HandInProps) {
  const [remark, setRemark] = useState('');
  const [wrong, setWrong] = useState('');
  const [isSending, setSending] = useState(false);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const send = async () => {
    setSending(true);
    try {
      const done = await handIn(draft.id, remark);
      await askAgain(queries, { queryKey: ['families'] });
      await askAgain(queries, { queryKey: ['drafts'] });
      await forgetGround(draft.id).catch(() => undefined); // it was this draft's alone
      await navigate({ to: '/families/$code', params: { code: done.family } });
    } catch (error) {
      setWrong(sentenceOf(error));
    }
    setSending(false);
  };
  return (
    <Modal opened onClose={onClose} title={`Hand in ${draft.name}`} size="lg">
      <form
        className={classes.handIn}
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        {walk?.revision === 1 && <p>A new family. Engines can be begun with it from then on.</p>}
        {walk && walk.revision > 1 && (
          <>
            <p>It becomes revision {walk.revision}. Engines stay on theirs until the lead moves them. This changes:</p>
            <div className={page.sheet}>
              <Changes changes={walk.differs} />
            </div>
          </>
        )}
        <TextInput
          label="Why"
          placeholder="kept beside the revision"
          data-autofocus
          value={remark}
          onChange={(event) => setRemark(event.currentTarget.value)}
        />
        {wrong && <p role="alert">{wrong}</p>}
        <div className={classes.handInFoot}>
          <Button variant="default" onClick={onClose}>
            Not yet
          </Button>
          <Button type="submit" loading={isSending}>
            Hand it in
          </Button>
        </div>
      </form>
    </Modal>
  );
}
