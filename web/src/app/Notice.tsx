/** Designed states for loading, nothing there, refused: each says what to do next. */
import { Button, Loader } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import classes from './Notice.module.css';

export function Waiting({ what }: { what: string }) {
  return (
    <div className={classes.notice} role="status">
      <Loader size="sm" aria-hidden />
      <p>{what}</p>
    </div>
  );
}

export interface NoticeProps {
  title: string;
  children?: ReactNode;
  retry?: () => void;
  /** Where no head of the page leads anywhere. */
  toFloor?: boolean;
}

export function Notice({ title, children, retry, toFloor = false }: NoticeProps) {
  return (
    <div className={classes.notice} role="alert">
      <h2>{title}</h2>
      <p>{children}</p>
      {retry && (
        <Button variant="default" onClick={retry}>
          Try again
        </Button>
      )}
      {toFloor && (
        <Link to="/" className={classes.away}>
          To the Floor
        </Link>
      )}
    </div>
  );
}
