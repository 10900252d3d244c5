import type { RefObject } from 'react';

interface Props {
  /** What a button of ours clicks. */
  readonly chooser: RefObject<HTMLInputElement | null>;
  readonly label: string;
  readonly accept: string;
  readonly onFile: (file: File | undefined) => void;
}

/** The browser's way to a file, out of sight; the same file can be chosen again after it was mended. */
export function FileInput({ chooser, label, accept, onFile }: Props) {
  return (
    <input
      ref={chooser}
      type="file"
      accept={accept}
      hidden
      aria-label={label}
      onChange={(event) => {
        onFile(event.target.files?.[0]);
        event.target.value = '';
      }}
    />
  );
}
