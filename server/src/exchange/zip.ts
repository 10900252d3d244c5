import { Refusal } from '@yosegi/core/refusal';
import yauzl from 'yauzl';

const MOST_ENTRIES = 2000;
/** What a workbook of a hundred thousand rows needs, and some more. */
const MOST_UNPACKED = 256 * 1024 * 1024;

/**
 * Unpacks every entry of a ZIP file once, keeping nothing, so that what follows cannot be flooded: a small file that
 * unpacks to gigabytes, or that lies about its sizes, is refused here.
 * @returns the names of its entries
 * @throws Refusal `file-too-much` or `file-broken`
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
          stream.on('error', broken);
          stream.on('end', () => zip.readEntry());
          stream.resume();
        });
      });
      zip.readEntry();
    });
  });
}
