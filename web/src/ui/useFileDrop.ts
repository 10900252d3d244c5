import { type DragEvent, useState } from 'react';

/** Lets a box take a dropped file; `over` is true while one hangs above it. */
export function useFileDrop(take: (file: File | undefined) => void) {
  const [over, setOver] = useState(false);
  return {
    over,
    drop: {
      onDragOver: (event: DragEvent) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files[0]);
      },
    },
  };
}
