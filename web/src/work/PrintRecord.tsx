/** The record, as paper or all in one file: a short one comes at once; a long one says how far it is, and can be stopped. */
import { Button, Modal, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ApiProblem, client, unwrap } from '../api/client';
import { madeId } from '../app/ids';
import classes from './Dialog.module.css';

const LONG = 300;
const LOOKED_EVERY_MS = 400;
const COMES_AGAIN_MS = 1_000;

type RecordFile = 'record.pdf' | 'record.html' | 'record.zip';

interface PrintRecordProps {
  serial: string;
  entries: number;
  file?: RecordFile;
  name?: string;
}

export function PrintRecord({ serial, entries, file = 'record.pdf', name = 'Record, PDF' }: PrintRecordProps) {
  const [printing, setPrinting] = useState(false);
  if (entries <= LONG) return <a href={`/api/engines/${serial}/${file}`}>{name}</a>;
  return (
    <>
      <UnstyledButton onClick={() => setPrinting(true)}>{name}</UnstyledButton>
      <Modal opened={printing} onClose={() => setPrinting(false)} title={`Record of ${serial}`}>
        {printing && <Printing {...{ serial, entries, file }} onStop={() => setPrinting(false)} />}
      </Modal>
    </>
  );
}

interface PrintingProps {
  serial: string;
  entries: number;
  file: RecordFile;
  onStop: () => void;
}

function Printing({ serial, entries, file, onStop }: PrintingProps) {
  const [paper, setPaper] = useState('');
  const [wrong, setWrong] = useState('');
  const [waits, setWaits] = useState(false);
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
    void fetchInTurn(
      `/api/engines/${serial}/${file}?turn=${turn}`,
      (isSo) => !left && setWaits(isSo),
      () => left,
    )
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
  }, [serial, file]);
  const far =
    waits && !data ? 'Another record is at the press; this one follows.' : `${data?.pages ?? 0} pages laid out.`;
  return (
    <div className={classes.form}>
      <p className={classes.what} role="status">
        {wrong || (paper ? 'It is ready.' : `${entries} entries. ${far}`)}
      </p>
      {paper ? (
        <Button component="a" href={paper} size="lg" autoFocus {...opensAs(serial, file)}>
          {file === 'record.pdf' ? 'Open it' : 'Keep it'}
        </Button>
      ) : (
        <Button variant="default" size="lg" onClick={onStop}>
          {wrong ? 'Close' : 'Stop'}
        </Button>
      )}
    </div>
  );
}

/** Paper is looked at, the rest kept under the engine's name. */
function opensAs(serial: string, file: RecordFile) {
  return file === 'record.pdf' ? { target: '_blank' } : { download: file.replace('record', serial) };
}

/** The server keeps a place for whoever comes again and again, and holds nothing for him meanwhile. */
async function fetchInTurn(address: string, say: (waits: boolean) => void, hasLeft: () => boolean): Promise<Blob> {
  for (;;) {
    try {
      return await fetchPaper(address);
    } catch (error) {
      const isBusy = error instanceof ApiProblem && error.status === 429;
      if (!isBusy) throw error;
      say(true);
      await new Promise((later) => setTimeout(later, COMES_AGAIN_MS));
      if (hasLeft()) throw error;
    }
  }
}

/** Paper is no JSON and takes as long as it takes, so it is fetched beside the typed client. */
async function fetchPaper(address: string): Promise<Blob> {
  const answer = await fetch(address, { cache: 'no-store' });
  if (answer.ok) return answer.blob();
  const said: { sentence?: string } = await answer.json().catch(() => ({}));
  throw new ApiProblem(answer.status, said.sentence ?? 'The record could not be printed; try again.');
}
