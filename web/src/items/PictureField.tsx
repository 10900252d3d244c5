import { IDEMPOTENCY_HEADER, type ItemDetail, LARGEST_PICTURE, picturePath } from '@yosegi/contract';
import { newKey } from '@yosegi/contract/key';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { refetch, useCommand } from '../api/client.ts';
import { upload } from '../api/upload.ts';
import { Button } from '../ui/Button.tsx';
import { FileInput } from '../ui/FileInput.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Stack } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Row } from '../ui/text.ts';
import { useFileDrop } from '../ui/useFileDrop.ts';

const Drop = styled.div<{ $over: boolean }>`
  display: flex; gap: 14px; align-items: center; padding: 10px; border: 1px dashed ${({ $over }) => ($over ? 'var(--honey)' : 'var(--line)')};
  border-radius: 3px; background: ${({ $over }) => ($over ? 'var(--coming-wash)' : 'transparent')};
`;

/** An item's picture: chosen, dropped or pasted, it stands in for the tile everywhere. */
export function PictureField({ item }: { item: ItemDetail }) {
  const chooser = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const remove = useCommand('removePicture');
  const send = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setError(null);
    try {
      const key = newKey();
      await upload(picturePath(item.id), file, {
        method: 'PUT',
        most: LARGEST_PICTURE,
        headers: { [IDEMPOTENCY_HEADER]: key },
      });
      refetch(['items']);
    } catch (fault) {
      setError(fault);
    } finally {
      setBusy(false);
    }
  };
  const { over, drop } = useFileDrop((file) => void send(file));
  return (
    <Drop $over={over} {...drop} onPaste={(event) => void send(event.clipboardData.files[0])}>
      <Tile code={item.code} size={72} />
      <Stack $gap={6}>
        <Row $gap={6}>
          <Button busy={busy} onPress={() => chooser.current?.click()}>
            {item.picture ? 'Another picture…' : 'Choose a picture…'}
          </Button>
          {item.picture && (
            <Button look="ghost" busy={remove.isPending} onPress={() => remove.mutate({ params: { id: item.id } })}>
              Back to the tile
            </Button>
          )}
        </Row>
        <Faint>JPEG, PNG, WebP, GIF or AVIF up to 12 MB; it is kept at 480 pixels. Dropping one here works too.</Faint>
        <ProblemBox error={error ?? remove.error} />
      </Stack>
      <FileInput chooser={chooser} accept="image/*" label="Picture file" onFile={(file) => void send(file)} />
    </Drop>
  );
}
