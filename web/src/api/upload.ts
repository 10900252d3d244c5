import type { Problem } from '@yosegi/contract';
import { ApiProblem, refusalOf } from '@yosegi/contract/client';
import { overNetwork } from './network.ts';

interface Uploading {
  readonly method: 'POST' | 'PUT';
  /** The most bytes that the server takes; more is refused here, before anything is sent. */
  readonly most: number;
  readonly headers?: Record<string, string>;
}

/** Sends a file as it is. @throws ApiProblem when the server, or its limit, refuses it */
export async function upload<T>(path: string, file: File, { method, most, headers }: Uploading): Promise<T> {
  if (file.size > most) throw new ApiProblem(tooLarge(file, most));
  const response = await overNetwork(path, {
    method,
    body: file,
    headers: { 'content-type': 'application/octet-stream', ...headers },
  });
  if (response.ok) return (await response.json()) as T;
  throw await refusalOf(response);
}

const megabytes = (bytes: number) => Math.ceil(bytes / 1024 / 1024);
const tooLarge = (file: File, most: number): Problem => ({
  type: 'urn:yosegi:problem:file-too-large',
  title: 'File too large',
  status: 413,
  code: 'file-too-large',
  detail: `${file.name} has ${megabytes(file.size)} MB; the limit is ${megabytes(most)} MB. Choose a smaller file, or split it.`,
});
