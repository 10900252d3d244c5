import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { FileInput } from '../ui/FileInput.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';

/** The largest message that is taken in, in characters. */
const MOST = 500_000;

/** Takes in what a customer sent as a file: a UBL Order, OrderChange or OrderCancellation. */
export function MessageButton() {
  const chooser = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  const notify = useNotify();
  const [unread, setUnread] = useState<string | null>(null);
  const take = useCommand('takeOrderMessage', ({ id, number, standing, isNew }) => {
    const what = standing === 'quote' ? 'to be checked' : standing === 'cancelled' ? 'is cancelled' : 'is confirmed';
    notify({ text: isNew ? `${number} ${what}.` : `${number} was already imported. Nothing changed.` });
    void go(`/orders/${id}`);
  });
  const read = async (file: File | undefined) => {
    if (!file) return;
    setUnread(null);
    if (file.size > MOST) return setUnread('This file is larger than any order. Choose the UBL file itself.');
    take.mutate({ body: { content: await file.text() } });
  };
  return (
    <>
      <Button look="ghost" busy={take.isPending} onPress={() => chooser.current?.click()}>
        Import…
      </Button>
      <ProblemBox error={unread ? new Error(unread) : take.error} />
      <FileInput
        chooser={chooser}
        accept=".xml,application/xml,text/xml"
        label="Order file"
        onFile={(file) => void read(file)}
      />
    </>
  );
}
