/** PDFs written by hand, a page of 400 × 300 points each, with everything at hand that an operator can name. */
import type { Font } from 'fontkit';
import { openSync } from 'fontkit';
import { readFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import { fontFiles } from './fonts';
import { SHIPPED_FONTS } from './shippedFonts';

/** `key: value` of a dictionary as it stands in the file, and the bytes of a stream. */
interface Part {
  readonly dict: string;
  readonly stream?: Buffer | string;
}

const RESOURCES = `<<
  /Font << /F1 3 0 R /Drawn 6 0 R /Drawn2 9 0 R /Down 30 0 R >>
  /XObject << /Form 10 0 R /Group 11 0 R /Picture 12 0 R /Mask 13 0 R /Script 22 0 R >>
  /ExtGState << /Half << /ca 0.5 /CA 0.5 >> /Wide << /LW 12 /LC 1 /LJ 1 /D [[20 30] 0] /ML 2 >>
    /Face << /Font [3 0 R 50] >> /Multiply << /BM /Multiply >> /Faded << /SMask << /S /Luminosity /G 11 0 R >> >> >>
  /ColorSpace << /Spot [/Separation /Lido /DeviceCMYK 14 0 R] /Nothing [/Separation /None /DeviceCMYK 14 0 R]
    /Two [/DeviceN [/Lido /Mole] /DeviceRGB 15 0 R] /Few [/Indexed /DeviceRGB 1 <B0303030B060>]
    /Lab [/Lab << /WhitePoint [0.9505 1 1.089] /Range [-100 100 -100 100] >>]
    /Tile [/Pattern /DeviceRGB] >>
  /Shading << /Axial 16 0 R /AxialOn 17 0 R /Radial 18 0 R /Cone 19 0 R /Mesh 20 0 R /Formula 21 0 R >>
  /Pattern << /Dots 23 0 R /Sheen << /PatternType 2 /Shading 16 0 R /Matrix [1 0 0 1 0 40] >> >>
  /Properties << /Off 24 0 R /On 25 0 R >>
>>`;
const SPOT_TINT = '/FunctionType 2 /Domain [0 1] /N 1 /C0 [0 0 0 0] /C1 [0.9 0.2 0 0.05]';
const RAMP = '<< /FunctionType 2 /Domain [0 1] /N 1 /C0 [0.8 0.1 0.1] /C1 [0.1 0.1 0.8] >>';
const GRADIENT = `/ColorSpace /DeviceRGB /Function ${RAMP}`;

let typeface: Promise<readonly Part[]> | undefined;

/** A TrueType face with its widths in WinAnsiEncoding; objects 3 to 5. */
async function face(): Promise<readonly Part[]> {
  const [file] = await fontFiles(SHIPPED_FONTS.find(({ id }) => id === 'anton')!);
  const font = openSync(file) as Font;
  const widths = Array.from({ length: 95 }, (_, i) =>
    Math.round((1000 * font.glyphForCodePoint(32 + i).advanceWidth) / font.unitsPerEm),
  );
  const box = [font.bbox.minX, font.bbox.minY, font.bbox.maxX, font.bbox.maxY];
  const bytes = readFileSync(file);
  return [
    {
      dict: `/Type /Font /Subtype /TrueType /BaseFont /Anton /FirstChar 32 /LastChar 126 /Encoding /WinAnsiEncoding
        /Widths [${widths.join(' ')}] /FontDescriptor 4 0 R`,
    },
    {
      dict: `/Type /FontDescriptor /FontName /Anton /Flags 32 /FontBBox [${box.join(' ')}] /ItalicAngle 0
        /Ascent 1000 /Descent -200 /CapHeight 800 /StemV 120 /FontFile2 5 0 R`,
    },
    { dict: `/Filter /FlateDecode /Length1 ${bytes.length}`, stream: deflateSync(bytes) },
  ];
}

/** Drawn typefaces: one in units of a thousandth whose letters take the text's paint (a) or their own (b); one that shows the other's. */
const drawn = (): readonly Part[] => [
  {
    dict: `/Type /Font /Subtype /Type3 /Name /Drawn /FontBBox [0 0 0 0] /FontMatrix [0.001 0 0 0.001 0 0] /FirstChar 97
      /LastChar 99 /Widths [700 700 700] /CharProcs << /a 7 0 R /b 8 0 R /c 26 0 R >>
      /Encoding << /Type /Encoding /Differences [97 /a /b /c] >> /Resources << >>`,
  },
  { dict: '', stream: '700 0 0 0 600 800 d1 0 0 m 600 0 l 300 800 l h f' },
  { dict: '', stream: '700 0 d0 0.1 0.6 0.2 rg 0 0 600 300 re f 0.7 0 0 RG 60 w 30 400 540 300 re S' },
  {
    dict: `/Type /Font /Subtype /Type3 /Name /Drawn2 /FontBBox [0 0 1 1] /FontMatrix [1 0 0 1 0 0] /FirstChar 65
      /LastChar 65 /Widths [2] /CharProcs << /A 27 0 R >> /Encoding << /Type /Encoding /Differences [65 /A] >>
      /Resources << /Font << /D 6 0 R /F 3 0 R >> >>`,
  },
];

const rest = (): readonly Part[] => [
  // 10: a form that is turned, smaller, and cut off by its box
  {
    dict: `/Type /XObject /Subtype /Form /BBox [0 0 100 60] /Matrix [0.8 0.3 -0.3 0.8 120 60] /Resources << >>`,
    stream: '0 0 0.6 rg 10 10 200 30 re f q 20 0 0 20 0 0 cm 0 1 1 1 re f Q',
  },
  // 11: a group, cut off by its box
  {
    dict: `/Type /XObject /Subtype /Form /BBox [0 0 160 100] /Group << /S /Transparency >> /Resources << >>`,
    stream: '0.7 g 20 20 200 40 re f 0.2 g 60 10 30 200 re f',
  },
  {
    dict: '/Type /XObject /Subtype /Image /Width 2 /Height 1 /BitsPerComponent 8 /ColorSpace /DeviceGray',
    stream: Buffer.from([0, 120]),
  },
  {
    dict: '/Type /XObject /Subtype /Image /ImageMask true /Width 8 /Height 1 /BitsPerComponent 1',
    stream: Buffer.from([0x55]),
  },
  { dict: SPOT_TINT },
  {
    dict: '/FunctionType 4 /Domain [0 1 0 1] /Range [0 1 0 1 0 1]',
    stream: '{ 1 exch sub exch 1 exch sub exch 0.3 }',
  },
  { dict: `/ShadingType 2 ${GRADIENT} /Coords [100 100 250 160]` },
  { dict: `/ShadingType 2 ${GRADIENT} /Coords [100 100 250 160] /Extend [true false] /BBox [40 40 300 200]` },
  { dict: `/ShadingType 3 ${GRADIENT} /Coords [200 150 40 210 150 120]` },
  { dict: `/ShadingType 3 ${GRADIENT} /Coords [80 150 20 260 150 60] /Extend [false true]` },
  {
    dict: `/ShadingType 4 /ColorSpace /DeviceRGB /BitsPerCoordinate 8 /BitsPerComponent 8 /BitsPerFlag 8
      /Decode [0 255 0 255 0 1 0 1 0 1]`,
    stream: Buffer.from([...[0, 40, 40, 200, 0, 0], ...[0, 240, 60, 0, 200, 0], ...[0, 120, 200, 0, 0, 200]]),
  },
  {
    dict: '/ShadingType 1 /ColorSpace /DeviceRGB /Function 15 0 R /Domain [0 1 0 1] /Matrix [200 0 0 200 50 50]',
  },
  { dict: '/Type /XObject /Subtype /PS', stream: 'showpage' },
  {
    dict: `/Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 20 20] /XStep 20 /YStep 20
      /Resources << >>`,
    stream: '0.2 0.5 0.2 rg 4 4 10 10 re f',
  },
  { dict: '/Type /OCG /Name (Hidden)' },
  { dict: '/Type /OCG /Name (Shown)' },
  // 26: a letter of pixels
  {
    dict: '',
    stream: Buffer.from(
      '700 0 0 0 600 800 d1 600 0 0 800 0 0 cm BI /W 8 /H 4 /IM true /BPC 1 /D [1 0] ID \xf0\x0f\x3c\xff EI',
      'latin1',
    ),
  },
  // 27: a letter that is set in both other faces
  { dict: '', stream: '2 0 d0 BT 0.1 0.1 0.5 rg /D 1 Tf 0 0 Td (a) Tj /F 0.5 Tf 0.8 0 Td (g) Tj ET' },
];

/**
 * Writes a page with its drawing steps.
 * @param content bytes as latin1
 */
export async function minimalPdf(content: string): Promise<Buffer> {
  typeface ??= face();
  const parts: Part[] = [
    {
      dict: '/Type /Catalog /Pages 2 0 R /OCProperties << /OCGs [24 0 R 25 0 R] /D << /OFF [24 0 R] >> >>',
    },
    { dict: '/Type /Pages /Kids [28 0 R] /Count 1' },
    ...(await typeface),
    ...drawn(),
    ...rest(),
    {
      dict: `/Type /Page /Parent 2 0 R /MediaBox [0 0 400 300] /Contents 29 0 R /Resources ${RESOURCES}`,
    },
    { dict: '', stream: content },
    {
      dict: `/Type /Font /Subtype /Type0 /BaseFont /Anton /Encoding /Identity-V /DescendantFonts [<< /Type /Font
        /Subtype /CIDFontType2 /BaseFont /Anton /CIDSystemInfo << /Registry (Adobe) /Ordering (Identity) /Supplement 0 >>
        /FontDescriptor 4 0 R /DW 500 /DW2 [800 -900] /W2 [38 [-1200 200 700]] /CIDToGIDMap /Identity >>]`,
    },
  ];
  const chunks: Buffer[] = [Buffer.from('%PDF-1.7\n')];
  let length = chunks[0].length;
  const offsets = parts.map(({ dict, stream }, i) => {
    const at = length;
    const bytes = typeof stream === 'string' ? Buffer.from(stream, 'latin1') : stream;
    const head = `${i + 1} 0 obj\n<< ${dict}${bytes ? ` /Length ${bytes.length}` : ''} >>\n`;
    const body = bytes ? [Buffer.from('stream\n'), bytes, Buffer.from('\nendstream\n')] : [];
    const written = Buffer.concat([Buffer.from(head), ...body, Buffer.from('endobj\n')]);
    chunks.push(written);
    length += written.length;
    return at;
  });
  const rows = offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  const size = parts.length + 1;
  const end = `xref\n0 ${size}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${size} /Root 1 0 R >>\nstartxref\n${length}\n%%EOF\n`;
  return Buffer.concat([...chunks, Buffer.from(end)]);
}
