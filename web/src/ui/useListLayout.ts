import { useRef, useState } from 'react';
import { useCommand, useQuestion } from '../api/client.ts';
import { useAddress } from './useAddress.ts';

/** Under which name a person's own columns of a list are kept beside their filters. */
const OWN = 'columns';
const listOf = (list: string) => `${list}.layout`;

interface Column {
  readonly key: string;
  readonly width: number;
  readonly usual?: boolean;
}

export interface ListLayout {
  /** The keys of what is shown, in order. */
  readonly shown: readonly string[];
  /** Of what was drawn wider or narrower, in pixels. */
  readonly widths: Readonly<Record<string, number>>;
  readonly setShown: (keys: readonly string[]) => void;
  readonly setWidth: (key: string, width: number) => void;
}

/**
 * Which columns of a list are shown, in which order and how wide: as the address says, else as the person left it last, on
 * whatever machine, else as usual.
 */
export function useListLayout(list: string, columns: readonly Column[]): ListLayout {
  const views = useQuestion('views', {}).data ?? [];
  const kept = read(views.find((view) => view.list === listOf(list) && view.name === OWN)?.search ?? '');
  const [inAddress, setInAddress] = useAddress('cols');
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({});
  const save = useCommand('saveView');
  const latest = useRef({ shown: [] as readonly string[], widths });
  const known = (keys: readonly string[]) => keys.filter((key) => columns.some((column) => column.key === key));
  const usual = columns.filter((column) => column.usual).map(({ key }) => key);
  const shown = known(inAddress ? inAddress.split('.') : (kept?.shown ?? usual));
  latest.current = { shown, widths: { ...kept?.widths, ...widths } };
  const keep = (next: { shown: readonly string[]; widths: Readonly<Record<string, number>> }) =>
    save.mutate({ body: { list: listOf(list), name: OWN, search: write(next) } });
  return {
    shown,
    widths: latest.current.widths,
    setShown: (keys) => {
      setInAddress(keys.join('.'));
      keep({ ...latest.current, shown: keys });
    },
    setWidth: (key, width) => {
      const next = { ...latest.current.widths, [key]: Math.round(width) };
      setWidths(next);
      keep({ ...latest.current, widths: next });
    },
  };
}

/** Like `onHand:120.free.value:90`, where a number is a width. */
const write = ({ shown, widths }: { shown: readonly string[]; widths: Readonly<Record<string, number>> }) =>
  shown.map((key) => (widths[key] ? `${key}:${widths[key]}` : key)).join('.');

function read(text: string): { shown: string[]; widths: Record<string, number> } | undefined {
  if (text === '') return undefined;
  const columns = text.split('.').map((column) => column.split(':'));
  return {
    shown: columns.map(([key = '']) => key),
    widths: Object.fromEntries(columns.flatMap(([key = '', width]) => (width ? [[key, Number(width)]] : []))),
  };
}
