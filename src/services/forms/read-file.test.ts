import { deflateRawSync } from 'node:zlib';
import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { LARGEST_FILE, readFile, safeName } from './read-file';

const bytes = (text: string) => new TextEncoder().encode(text);
const picture = (width = 600, height = 400) =>
  sharp({ create: { width, height, channels: 3, background: '#20406a' } });
const read = async (content: Uint8Array, name: string) => {
  const file = await readFile(content, name);
  if ('problem' in file) throw new Error(file.problem);
  return file;
};
const refusal = async (content: Uint8Array, name: string) => {
  const file = await readFile(content, name);
  return 'problem' in file ? file.problem : `taken as ${file.mediaType}`;
};

describe('a picture', () => {
  it('is drawn anew, whatever it calls itself, with a coarse version from which nothing can be read', async () => {
    const png = new Uint8Array(await picture().png().toBuffer());
    const file = await read(png, '../../Holiday  Picture.GIF');
    expect(file).toMatchObject({
      name: 'holiday-picture.webp',
      mediaType: 'image/webp',
      picture: { width: 600, height: 400 },
    });
    const coarse = Buffer.from(file.picture?.coarse.split(',')[1] ?? '', 'base64');
    const { width = 99, height = 99 } = await sharp(coarse).metadata();
    expect(Math.max(width, height)).toBeLessThanOrEqual(14);
  });

  it('loses what was hidden in it: a second file behind it, where it was taken', async () => {
    const jpeg = await picture()
      .withExif({ IFD0: { Copyright: 'SECRET-PLACE' } })
      .jpeg()
      .toBuffer();
    const polyglot = Buffer.concat([
      jpeg,
      Buffer.from('<script>alert(1)</script>PK\u0003\u0004SECRET-PLACE'),
    ]);
    const file = await read(new Uint8Array(polyglot), 'a.jpg');
    expect(Buffer.from(file.bytes).toString('latin1')).not.toMatch(/SECRET-PLACE|script/);
  });

  it('is made smaller when it is very large, and refused when it is damaged', async () => {
    const wide = await read(new Uint8Array(await picture(4000, 100).png().toBuffer()), 'wide.png');
    expect(wide.picture).toMatchObject({ width: 2400 });
    const broken = new Uint8Array((await picture().png().toBuffer()).subarray(0, 60));
    expect(await refusal(broken, 'a.png')).toMatch(/can’t be read/);
  });
});

describe('what is not taken', () => {
  it.each([
    [
      'an SVG with a script',
      '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>',
      'a.svg',
      /markup/,
    ],
    ['HTML that calls itself text', '\n <!doctype html><script>1</script>', 'a.txt', /markup/],
    ['bytes that are nothing', '\u0000\u0001\u0002', 'a.txt', /can’t be made out/],
    ['nothing', '', 'a.txt', /empty/],
  ])('is %s', async (_, text, name, problem) => {
    expect(await refusal(bytes(text), name)).toMatch(problem);
  });

  it('is a ZIP that calls itself a picture', async () => {
    const name = bytes('a.txt');
    const data = deflateRawSync(bytes('hello'));
    const head = new Uint8Array([
      0x50,
      0x4b,
      3,
      4,
      20,
      0,
      0,
      0,
      8,
      0,
      0,
      0,
      0,
      0,
      0,
      0,
      0,
      0,
      data.length,
      0,
      0,
      0,
      5,
      0,
      0,
      0,
      name.length,
      0,
      0,
      0,
    ]);
    expect(await refusal(new Uint8Array([...head, ...name, ...data]), 'a.png')).toMatch(/application\/zip/);
  });

  it('is what is too large', async () => {
    expect(await refusal(new Uint8Array(LARGEST_FILE + 1), 'a.bin')).toMatch(/larger than 20 MB/);
  });
});

it('takes plain text as what it is, under a name that fits', async () => {
  expect(await read(bytes('a,b\n1,2'), 'table.csv')).toMatchObject({
    name: 'table.csv',
    mediaType: 'text/csv',
  });
  expect(await read(bytes('hello'), 'run.exe')).toMatchObject({ name: 'run.txt', mediaType: 'text/plain' });
});

it('makes any name safe in an address and a file system', () => {
  fc.assert(
    fc.property(fc.string(), (name) => {
      expect(safeName(name, 'webp')).toMatch(/^[\p{L}\p{N}_][\p{L}\p{N}_-]*\.webp$/u);
    }),
  );
  expect(safeName('..\\..\\etc/passwd', 'txt')).toBe('passwd.txt');
  expect(safeName('a'.repeat(500), 'txt').length).toBeLessThan(100);
});
