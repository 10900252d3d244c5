import type { Topic } from '@yosegi/contract';
import { IDEMPOTENCY_HEADER, LARGEST_PICTURE } from '@yosegi/contract';
import { newKey } from '@yosegi/contract/key';
import { useState } from 'react';
import { refetch } from './client.ts';
import { upload } from './upload.ts';

/** Sends a picture to its address, and has what shows it asked for again. */
export function usePictureUpload(path: string, topics: readonly Topic[]) {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setError(null);
    try {
      const headers = { [IDEMPOTENCY_HEADER]: newKey() };
      await upload(path, file, { method: 'PUT', most: LARGEST_PICTURE, headers });
      refetch(topics);
    } catch (fault) {
      setError(fault);
    } finally {
      setBusy(false);
    }
  };
  return { send: (file: File | undefined) => void send(file), busy, error };
}
