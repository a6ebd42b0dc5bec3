/** The whole document as JSON, beside the questions: what is changed here becomes edits of the draft, each with its line on the tape. */
import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Schemas } from '../api/client';
import type { KeyAction } from '../app/keys';
import { Notice, Waiting } from '../app/Notice';
import classes from './AsJson.module.css';
import { type Draft, documentQuery, draftHref } from './api';
import { JsonEditor } from './JsonEditor';
import { Screen } from './Screen';
import type { Writing } from './writing';

interface AsJsonProps {
  draft: Draft;
  writing: Writing;
  faults: Schemas['Standing']['faults'];
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

export function AsJson({ draft, writing, faults, common }: AsJsonProps) {
  const document = useQuery(documentQuery(draft.id, draft.changes));
  const [text, setText] = useState<string | null>(null);
  const kept = document.data;
  // what was taken over, or written elsewhere meanwhile, is shown as long as nothing is being typed here
  useEffect(() => setText((typed) => (typed === kept ? null : typed)), [kept]);
  if (kept === undefined)
    return document.error ? (
      <Notice title="The document cannot be shown" retry={() => document.refetch()}>
        {document.error.message}
      </Notice>
    ) : (
      <Waiting what="Writing it out" />
    );
  const take = () => {
    if (text !== null) void writing.takeText(text).then((after) => after && setText(null));
  };
  return (
    <Screen actions={common} isLong>
      <div className={classes.json}>
        <div className={classes.head}>
          <div>
            <h1>As JSON</h1>
            <p>
              For what no question asks yet. <a href={draftHref(draft.id)}>Hand it out as a file</a>
            </p>
          </div>
          {draft.may_write && text !== null && (
            <>
              <Button variant="default" onClick={() => setText(null)}>
                As it was
              </Button>
              <Button onClick={take}>Take it over</Button>
            </>
          )}
        </div>
        {writing.trouble && <p role="alert">{writing.trouble.sentence}</p>}
        {faults.length > 0 && (
          <ul className={classes.faults}>
            {faults.slice(0, 6).map((one) => (
              <li key={`${one.path} ${one.sentence}`}>
                <code>{one.path || 'the whole'}</code> {one.sentence}
              </li>
            ))}
          </ul>
        )}
        <JsonEditor label="The document as JSON" value={text ?? kept} onChange={setText} editable={draft.may_write} />
      </div>
    </Screen>
  );
}
