import { type ReturnDetail, returnPicturePath } from '@yosegi/contract';
import { useRef } from 'react';
import styled from 'styled-components';
import { useCan } from '../api/person.ts';
import { usePictureUpload } from '../api/usePictureUpload.ts';
import { Button } from '../ui/Button.tsx';
import { FileInput } from '../ui/FileInput.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Section } from '../ui/space.ts';
import { Faint, Row } from '../ui/text.ts';
import { useFileDrop } from '../ui/useFileDrop.ts';

const Image = styled.img`display: block; max-width: min(100%, 420px); max-height: 320px; border: 1px solid var(--line); border-radius: 2px;`;
const Drop = styled(Section)<{
  $over: boolean;
}>`outline: ${({ $over }) => ($over ? '2px dashed var(--honey)' : 'none')}; outline-offset: 6px;`;

/** What it looked like when it came: taken with a phone, chosen, or dropped here. */
export function ReturnPicture({ of }: { of: ReturnDetail }) {
  const chooser = useRef<HTMLInputElement>(null);
  const mayKeep = useCan('take-apart');
  const { send, busy, error } = usePictureUpload(returnPicturePath(of.id), ['orders']);
  const { over, drop } = useFileDrop(send);
  if (!mayKeep && of.picture === null) return null;
  return (
    <Drop $over={over} $top={14} {...(mayKeep ? drop : {})}>
      <h2>Picture</h2>
      {of.picture !== null && (
        <a href={returnPicturePath(of.id, of.picture)} target="_blank" rel="noreferrer">
          <Image src={returnPicturePath(of.id, of.picture)} alt={`Larger picture of ${of.number}`} />
        </a>
      )}
      {mayKeep && (
        <>
          <Row $gap={10} $top={8} $wrap>
            <Button busy={busy} onPress={() => chooser.current?.click()}>
              {of.picture === null ? 'Add a picture…' : 'Change picture…'}
            </Button>
            <Faint>From the camera or a file, up to 12 MB. You can also drop it here.</Faint>
          </Row>
          <ProblemBox error={error} />
          <FileInput chooser={chooser} accept="image/*" label="Picture of the return" onFile={send} />
        </>
      )}
    </Drop>
  );
}
