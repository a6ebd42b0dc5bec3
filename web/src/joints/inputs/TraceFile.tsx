/** A pull's trace from a file: how far it is read, which columns were taken, what it says. */
import { Button, FileButton } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useTraceFile } from '../../instruments/upload';
import type { TorqueUnit } from '../torque';
import classes from './joints.module.css';

interface TraceFileProps {
  unit: TorqueUnit;
  onRead: (read: Schemas['TraceRead']) => void;
}

export function TraceFile({ unit, onRead }: TraceFileProps) {
  const file = useTraceFile(unit);
  const [said, setSaid] = useState('');
  const take = async (chosen: File | null) => {
    if (!chosen) return;
    setSaid('');
    const read = await file.read(chosen);
    if (!read) return;
    setSaid([`${read.rows} rows, ${read.columns}`, ...read.flags].join('; '));
    onRead(read);
  };
  return (
    <div className={classes.file}>
      {file.sending ? (
        <>
          <progress value={file.sending.share} max={1} aria-label="Reading the trace" />
          <span>{file.sending.rows} rows</span>
          <Button variant="default" onClick={file.stop}>
            Stop
          </Button>
        </>
      ) : (
        <FileButton accept=".csv,text/csv,text/plain" onChange={(chosen) => void take(chosen)}>
          {(props) => (
            <Button {...props} variant="default">
              A trace from a file
            </Button>
          )}
        </FileButton>
      )}
      {(file.wrong || said) && <p role={file.wrong ? 'alert' : 'status'}>{file.wrong || said}</p>}
    </div>
  );
}
