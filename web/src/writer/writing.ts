/** Writing a draft: one edit at a time goes out, what is refused stays where it was typed and says why. */
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { askAgain } from '../api/again';
import { ApiProblem, type Schemas } from '../api/client';
import {
  type Draft,
  draftQuery,
  type Edit,
  sendEdit,
  sendPhoto,
  sendPlace,
  sendRedo,
  sendTable,
  sendText,
  sendUndo,
} from './api';

export type TableKind = Schemas['TableIn']['kind'];

export interface Trouble {
  sentence: string;
  /** Which letters of what was typed cannot be read. */
  at: { begin: number; end: number } | null;
}

export interface Writing {
  trouble: Trouble | null;
  forget: () => void;
  /** Sends an edit; the draft as it is then, or nothing where it was refused. */
  write: (edit: Edit, after?: string) => Promise<Draft | null>;
  /** Sends a whole document as text: what it says otherwise becomes edits. */
  takeText: (text: string) => Promise<Draft | null>;
  /** Puts the rows of a pasted table in, all of them or none. */
  putTable: (kind: TableKind, text: string) => Promise<Draft | null>;
  /** Sends what one place's form says. */
  fillPlace: (place: string, value: Schemas['PlaceIn']['value']) => Promise<Draft | null>;
  /** Takes the places that follow from a photo over. */
  putPhoto: (marks: Schemas['PhotoMarks']) => Promise<Draft | null>;
  undo: () => Promise<Draft | null>;
  redo: () => Promise<Draft | null>;
}

export function useWriting(draft: Draft): Writing {
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const last = useRef(draft.last);
  last.current = draft.last;
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  // one after another: what is typed next is made on what came before
  const send = (ask: () => Promise<Draft>): Promise<Draft | null> => {
    const turn = queue.current.then(async () => {
      try {
        await queries.cancelQueries({ queryKey: draftQuery(draft.id).queryKey, exact: true });
        const answer = await ask();
        last.current = answer.last;
        queries.setQueryData(draftQuery(draft.id).queryKey, answer);
        setTrouble(null);
        return answer;
      } catch (error) {
        setTrouble(troubleOf(error));
        if (error instanceof ApiProblem && error.code === 'meanwhile')
          await askAgain(queries, { queryKey: draftQuery(draft.id).queryKey, exact: true });
        return null;
      }
    });
    queue.current = turn;
    return turn;
  };
  return {
    trouble,
    forget: () => setTrouble(null),
    write: (edit, after) =>
      send(() => sendEdit(draft.id, { edit, made_on: last.current, ...(after === undefined ? {} : { after }) })),
    takeText: (text) => send(() => sendText(draft.id, { text, made_on: last.current })),
    putTable: (kind, text) => send(() => sendTable(draft.id, { kind, text, made_on: last.current })),
    fillPlace: (place, value) => send(() => sendPlace(draft.id, { at: place, value, made_on: last.current })),
    putPhoto: (marks) => send(() => sendPhoto(draft.id, { marks, made_on: last.current })),
    undo: () => send(() => sendUndo(draft.id)),
    redo: () => send(() => sendRedo(draft.id)),
  };
}

function troubleOf(error: unknown): Trouble {
  if (error instanceof ApiProblem) return { sentence: error.message, at: error.at };
  return {
    sentence: 'The server does not answer. What you typed stays here; send it again when it is back.',
    at: null,
  };
}
