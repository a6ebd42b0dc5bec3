/** Begins a draft and goes to it; what was wrong where it could not. */
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { askAgain } from '../api/again';
import { type Schemas, sentenceOf } from '../api/client';
import { beginDraft, draftsQuery } from './api';

export function useBegin() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState('');
  const begin = async (body: Schemas['DraftIn']) => {
    try {
      const draft = await beginDraft(body);
      await askAgain(queries, { queryKey: draftsQuery.queryKey, exact: true });
      await navigate({ to: '/drafts/$id', params: { id: draft.id }, search: {} });
    } catch (error) {
      setWrong(sentenceOf(error));
    }
  };
  const fromFile = async (file: File | null) => {
    if (!file) return;
    try {
      await begin({ text: new TextDecoder('utf-8', { fatal: true }).decode(await file.arrayBuffer()) });
    } catch {
      setWrong(`${file.name} is no text in UTF-8; save it as such and choose it again.`);
    }
  };
  return { begin, fromFile, wrong };
}
