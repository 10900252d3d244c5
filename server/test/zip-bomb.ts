import { crc32, deflateRawSync } from 'node:zlib';

/** A ZIP file by hand (APPNOTE.TXT 6.3), so that it can be made hostile: zeros that unpack to `size`, or a lie about it. */
export function zipBomb({ entries, size, told = size }: { entries: number; size: number; told?: number }): Buffer {
  const content = Buffer.alloc(size);
  const packed = deflateRawSync(content, { level: 9 });
  const sum = crc32 ? crc32(content) : 0;
  const locals: Buffer[] = [];
  const central: Buffer[] = [];
  let offset = 0;
  for (let n = 0; n < entries; n += 1) {
    const name = Buffer.from(`xl/part${n}.xml`);
    const sizes = Buffer.alloc(12);
    sizes.writeUInt32LE(sum, 0);
    sizes.writeUInt32LE(packed.length, 4);
    sizes.writeUInt32LE(told, 8);
    const local = Buffer.concat([
      Buffer.from('504b03041400000008000000210000'.slice(0, 28), 'hex'),
      sizes,
      word(name.length),
      word(0),
      name,
      packed,
    ]);
    const entry = Buffer.concat([
      Buffer.from('504b0102140014000000080000002100', 'hex'),
      sizes,
      word(name.length),
      Buffer.alloc(12),
      long(offset),
      name,
    ]);
    locals.push(local);
    central.push(entry);
    offset += local.length;
  }
  const directory = Buffer.concat(central);
  const end = Buffer.concat([
    Buffer.from('504b050600000000', 'hex'),
    word(entries),
    word(entries),
    long(directory.length),
    long(offset),
    word(0),
  ]);
  return Buffer.concat([...locals, directory, end]);
}

function word(value: number): Buffer {
  const bytes = Buffer.alloc(2);
  bytes.writeUInt16LE(value);
  return bytes;
}
function long(value: number): Buffer {
  const bytes = Buffer.alloc(4);
  bytes.writeUInt32LE(value);
  return bytes;
}
