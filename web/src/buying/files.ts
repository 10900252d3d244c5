import { orderFilePath, type SentHow } from '@yosegi/contract';

/** Opens what an order is handed over as: its sheet of paper, or the file. Mail needs nothing more. */
export function openFile(id: number, how: SentHow, go: (to: string) => unknown): void {
  if (how === 'print') void go(`/print/order/${id}`);
  if (how === 'csv') download(orderFilePath(id, 'csv'));
  if (how === 'ubl') download(orderFilePath(id, 'xml'));
}

function download(path: string): void {
  const link = document.createElement('a');
  link.href = path;
  link.download = '';
  link.click();
}
