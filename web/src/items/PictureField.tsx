import { type ItemDetail, picturePath } from '@yosegi/contract';
import { useRef } from 'react';
import styled from 'styled-components';
import { useCommand } from '../api/client.ts';
import { usePictureUpload } from '../api/usePictureUpload.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
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
  const { send, busy, error } = usePictureUpload(picturePath(item.id), ['items']);
  const remove = useCommand('removePicture');
  const { over, drop } = useFileDrop(send);
  return (
    <Drop $over={over} {...drop} onPaste={(event) => send(event.clipboardData.files[0])}>
      <Tile code={item.code} size={72} />
      <Stack $gap={6}>
        <Row $gap={6}>
          <Button busy={busy} onPress={() => chooser.current?.click()}>
            {item.picture ? 'Change picture…' : 'Choose a picture…'}
          </Button>
          {item.picture && (
            <AskFirst
              label="Back to the tile…"
              look="ghost"
              title={`Remove the picture of ${item.name}?`}
              action="Remove the picture"
              keep="Keep the picture"
              busy={remove.isPending}
              onDo={() => remove.mutate({ params: { id: item.id } })}
            >
              Yosegi has no other copy. The tile is shown again.
            </AskFirst>
          )}
        </Row>
        <Faint>Picture files up to 12 MB, stored at 480 pixels. You can also drop one here.</Faint>
        <ProblemBox error={error ?? remove.error} />
      </Stack>
      <FileInput chooser={chooser} accept="image/*" label="Picture file" onFile={send} />
    </Drop>
  );
}
