/** The record on paper: a short one opens at once; a long one says how far it is, and can be stopped. */
import { Button, Modal, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ApiProblem, client, unwrap } from '../api/client';
import { madeId } from '../app/ids';
import classes from './Dialog.module.css';

const LONG = 300;
const LOOKED_EVERY_MS = 400;

export function PrintRecord({ serial, entries }: { serial: string; entries: number }) {
  const [printing, setPrinting] = useState(false);
  if (entries <= LONG) return <a href={`/api/engines/${serial}/record.pdf`}>Record, PDF</a>;
  return (
    <>
      <UnstyledButton onClick={() => setPrinting(true)}>Record, PDF</UnstyledButton>
      <Modal opened={printing} onClose={() => setPrinting(false)} title={`Record of ${serial}`}>
        {printing && <Printing serial={serial} entries={entries} onStop={() => setPrinting(false)} />}
      </Modal>
    </>
  );
}

interface PrintingProps {
  serial: string;
  entries: number;
  onStop: () => void;
}

function Printing({ serial, entries, onStop }: PrintingProps) {
  const [paper, setPaper] = useState('');
  const [wrong, setWrong] = useState('');
  const { data } = useQuery({
    queryKey: ['printing'],
    queryFn: async ({ signal }) => unwrap(await client.GET('/api/printing', { signal })),
    refetchInterval: LOOKED_EVERY_MS,
    enabled: !paper && !wrong,
  });
  useEffect(() => {
    let address = '';
    let left = false;
    const turn = madeId();
    void fetchPaper(serial, turn)
      .then((sheet) => {
        address = URL.createObjectURL(sheet);
        if (!left) setPaper(address);
      })
      .catch((error: Error) => !left && setWrong(error.message));
    return () => {
      left = true;
      URL.revokeObjectURL(address);
      if (!address) void client.DELETE('/api/printing', { params: { query: { turn } } }).catch(() => undefined);
    };
  }, [serial]);
  const far = data?.waits ? 'Another record is at the press.' : `${data?.pages ?? 0} pages laid out.`;
  return (
    <div className={classes.form}>
      <p className={classes.what} role="status">
        {wrong || (paper ? 'It is ready.' : `${entries} entries. ${far}`)}
      </p>
      {paper ? (
        <Button component="a" href={paper} target="_blank" size="lg" autoFocus>
          Open it
        </Button>
      ) : (
        <Button variant="default" size="lg" onClick={onStop}>
          {wrong ? 'Close' : 'Stop'}
        </Button>
      )}
    </div>
  );
}

/** Paper is no JSON and takes as long as it takes, so it is fetched beside the typed client. */
async function fetchPaper(serial: string, turn: string): Promise<Blob> {
  const answer = await fetch(`/api/engines/${serial}/record.pdf?turn=${turn}`, { cache: 'no-store' });
  if (answer.ok) return answer.blob();
  const said: { sentence?: string } = await answer.json().catch(() => ({}));
  throw new ApiProblem(answer.status, said.sentence ?? 'The record could not be printed; try again.');
}
