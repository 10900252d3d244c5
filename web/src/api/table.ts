import { type ShownTable, TABLE_PATH } from '@yosegi/contract';
import { refusalOf } from '@yosegi/contract/client';
import { overNetwork } from './network.ts';

/** Makes a file of a list as it is shown and hands it to the browser. @throws ApiProblem when the server refuses it */
export async function saveTable(format: 'csv' | 'xlsx', table: ShownTable): Promise<void> {
  const response = await overNetwork(`${TABLE_PATH}?format=${format}`, {
    method: 'POST',
    body: JSON.stringify(table),
    headers: { 'content-type': 'application/octet-stream' },
  });
  if (!response.ok) throw await refusalOf(response);
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? `list.${format}`;
  const address = URL.createObjectURL(await response.blob());
  const link = Object.assign(document.createElement('a'), { href: address, download: name });
  link.click();
  URL.revokeObjectURL(address);
}
