/** An editor for JSON, in the house's colours of both schemes: what cannot be read is marked at its line. */
import { json, jsonParseLinter } from '@codemirror/lang-json';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { linter, lintGutter } from '@codemirror/lint';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import CodeMirror from '@uiw/react-codemirror';
import { useMemo } from 'react';
import classes from './AsJson.module.css';

interface JsonEditorProps {
  label: string;
  value: string;
  editable: boolean;
  onChange: (text: string) => void;
}

const COLOURS = HighlightStyle.define([
  { tag: tags.propertyName, color: 'var(--ink)', fontWeight: '600' },
  { tag: tags.string, color: 'var(--verdigris)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--blue)' },
  { tag: tags.invalid, color: 'var(--red)' },
]);
const COMMON = [json(), lintGutter(), linter(jsonParseLinter()), syntaxHighlighting(COLOURS), EditorView.lineWrapping];

export function JsonEditor({ label, value, editable, onChange }: JsonEditorProps) {
  const extensions = useMemo(() => [...COMMON, EditorView.contentAttributes.of({ 'aria-label': label })], [label]);
  return (
    <CodeMirror
      value={value}
      onChange={onChange}
      editable={editable}
      theme="none"
      className={classes.editor ?? ''}
      extensions={extensions}
    />
  );
}
