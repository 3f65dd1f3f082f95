import { inflateRawSync } from 'node:zlib';
import { err, ok, type Result } from '@/core/result';
import { type FileFault, limits } from './fault';

export type ZipEntry = { readonly name: string; readonly content: Buffer };

const CENTRAL = 0x02014b50;
const END = 0x06054b50;
const LOCAL = 0x04034b50;
const ENTRIES = 2000;

/** Unpacks a ZIP file within the limits, whatever its headers claim: what is unpacked is counted, not believed.
 *  Errors: damaged, encrypted, unpacks_too_large.
 *  Source: PKWARE APPNOTE 6.3, sections 4.3.7, 4.3.12 and 4.3.16. */
export function unzip(file: Buffer): Result<ZipEntry[], FileFault> {
  const end = endOfDirectory(file);
  if (end < 0) return err({ kind: 'damaged' });
  const count = file.readUInt16LE(end + 10);
  let at = file.readUInt32LE(end + 16);
  if (count > ENTRIES) return err({ kind: 'damaged' });
  const most = limits.unpackedMegabytes * 1024 * 1024;
  let total = 0;
  const entries: ZipEntry[] = [];
  try {
    for (let i = 0; i < count; i += 1) {
      if (file.readUInt32LE(at) !== CENTRAL) return err({ kind: 'damaged' });
      const [flags, method] = [file.readUInt16LE(at + 8), file.readUInt16LE(at + 10)];
      const packed = file.readUInt32LE(at + 20);
      const [nameLength, extra, comment] = [28, 30, 32].map((o) => file.readUInt16LE(at + o)) as [
        number,
        number,
        number,
      ];
      const local = file.readUInt32LE(at + 42);
      if (flags & 1) return err({ kind: 'encrypted' });
      if (file.readUInt32LE(local) !== LOCAL) return err({ kind: 'damaged' });
      const start = local + 30 + file.readUInt16LE(local + 26) + file.readUInt16LE(local + 28);
      const data = file.subarray(start, start + packed);
      if (method !== 0 && method !== 8) return err({ kind: 'damaged' });
      const content = method === 0 ? data : inflateRawSync(data, { maxOutputLength: Math.max(1, most - total) });
      total += content.length;
      if (total >= most) return err({ kind: 'unpacks_too_large', mostMegabytes: limits.unpackedMegabytes });
      entries.push({ name: file.toString('utf8', at + 46, at + 46 + nameLength), content });
      at += 46 + nameLength + extra + comment;
    }
  } catch (e) {
    const code = (e as { code?: string }).code;
    if (code === 'ERR_BUFFER_TOO_LARGE')
      return err({ kind: 'unpacks_too_large', mostMegabytes: limits.unpackedMegabytes });
    return err({ kind: 'damaged' });
  }
  return ok(entries);
}

function endOfDirectory(file: Buffer): number {
  for (let at = file.length - 22; at >= Math.max(0, file.length - 66_000); at -= 1)
    if (file.readUInt32LE(at) === END) return at;
  return -1;
}
