import { Refusal } from '@yosegi/core/refusal';
import yauzl from 'yauzl';

const MOST_ENTRIES = 2000;
/** What a workbook of a hundred thousand rows needs, and some more. */
const MOST_UNPACKED = 256 * 1024 * 1024;

/** More cells than a hundred thousand rows of a catalogue have. */
const MOST_CELLS = 4_000_000;
/** A named range is spread out cell by cell when it is read. */
const MOST_NAMED_CELLS = 1_000_000;
/** The largest description of a workbook, which is read whole. */
const LARGEST_HEAD = 4 * 1024 * 1024;

/**
 * Unpacks every entry of a ZIP file once, keeping nothing, so that what follows cannot be flooded: a small file that
 * unpacks to gigabytes, or that lies about its sizes, is refused here, and so is one whose cells or named ranges are more
 * than can be read in good time.
 * @returns the names of its entries
 * @throws Refusal `file-too-much`, `file-too-many-cells` or `file-broken`
 */
export function measureZip(content: Buffer): Promise<string[]> {
  return new Promise((resolve, reject) => {
    const broken = () => reject(new Refusal('file-broken'));
    yauzl.fromBuffer(content, { lazyEntries: true, validateEntrySizes: true }, (error, zip) => {
      if (error || zip.entryCount > MOST_ENTRIES) return error ? broken() : reject(new Refusal('file-too-much'));
      const names: string[] = [];
      let unpacked = 0;
      zip.on('error', broken);
      zip.on('end', () => resolve(names));
      zip.on('entry', (entry: yauzl.Entry) => {
        names.push(entry.fileName);
        unpacked += entry.uncompressedSize;
        if (unpacked > MOST_UNPACKED) return reject(new Refusal('file-too-much'));
        if (entry.fileName.endsWith('/')) return zip.readEntry();
        zip.openReadStream(entry, (fault, stream) => {
          if (fault) return broken();
          const seen = watching(entry.fileName);
          stream.on('error', broken);
          stream.on('data', (chunk: Buffer) => {
            if (seen(chunk.toString('latin1'))) return;
            stream.destroy();
            reject(new Refusal('file-too-many-cells'));
          });
          stream.on('end', () => zip.readEntry());
        });
      });
      zip.readEntry();
    });
  });
}

/** Looks at an entry as it is unpacked. @returns whether what was seen so far can be read in good time */
function watching(name: string): (text: string) => boolean {
  let tail = '';
  if (/^xl\/worksheets\/.*\.xml$/i.test(name)) {
    let cells = 0;
    return (text) => {
      const seen = tail + text;
      cells += seen.match(/<c[\s>/]/g)?.length ?? 0;
      // Too few letters to be a cell that was counted, enough for one that is cut in two.
      tail = seen.slice(-2);
      return cells <= MOST_CELLS;
    };
  }
  if (!/^xl\/workbook\.xml$/i.test(name)) return () => true;
  return (text) => {
    tail += text;
    if (tail.length > LARGEST_HEAD) return false;
    const ranges = tail.matchAll(/\$([A-Z]{1,3})\$(\d{1,7}):\$([A-Z]{1,3})\$(\d{1,7})/g);
    let named = 0;
    for (const [, left = '', top = '', right = '', bottom = ''] of ranges)
      named += (columnOf(right) - columnOf(left) + 1) * (Number(bottom) - Number(top) + 1);
    return named <= MOST_NAMED_CELLS;
  };
}

const columnOf = (letters: string) => [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0);
