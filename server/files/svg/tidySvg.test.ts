/** Drawings as they come: old, hand-made, styled with today's CSS, harmful. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { BROWSER } from '../../../scripts/browser.mjs';
import type { Browser } from '@playwright/test';
import sharp from 'sharp';
import type { Artwork } from '../../../core/readers/artwork';
import { differingShare, pixels, stackedSvg } from '../pixels.testing';
import type { Pixels } from '../pixels.testing';
import { readFile } from '../readFile';
import { tidySvg } from './tidySvg';
import { sample } from '../../../core/sample.testing';

const NS = 'xmlns="http://www.w3.org/2000/svg"';
const svg = (body: string, root = `${NS} width="200" height="200"`): string => `<svg ${root}>${body}</svg>`;
const read = (text: string | Buffer): Promise<Artwork> => readFile(Buffer.from(text));
const codes = ({ findings }: Artwork): string[] => findings.map(({ code }) => code);
const message = (artwork: Artwork, code: string): string =>
  artwork.findings.find((finding) => finding.code === code)?.message ?? '';
const colours = ({ shapes }: Artwork): string[] => shapes.map(({ colour }) => colour);

describe('old and hand-made files', () => {
  const RECT = '<rect width="100" height="100" fill="#ff0000"/>';
  test.each<[string, string | Buffer, RegExp]>([
    ['no namespace', svg(RECT, 'width="200" height="200"'), /does not say that it is SVG/],
    [
      'undeclared prefixes',
      svg(
        `<foo:view bar:zoom="1"><rect/></foo:view><rect foo:x="9" width="100" height="100" fill="#ff0000"/>`,
      ),
      /prefixes that it does not declare/,
    ],
    ['an undeclared link', svg(`<defs><g id="a">${RECT}</g></defs><use xlink:href="#a"/>`), /prefixes/],
    ['a bare &', svg(`<title>Salt & Marsh</title>${RECT}`), /bare “&”/],
    ['entities of web pages', svg(`<title>Caf&eacute;&nbsp;</title>${RECT}`), /web pages/],
    ['text before the root', `saved by hand\n${svg(RECT)}`, /text before/],
    [
      'capital letters',
      `<SVG ${NS} WIDTH="200" HEIGHT="200PX">${RECT.toUpperCase().replace('#FF', '#ff')}</SVG>`,
      /wrong case/,
    ],
    ['no quotes', svg('<rect width=100 height=100 fill=#ff0000 />'), /without quotes/],
    ['elements left open', svg(`<g><g>${RECT}</g>`), /not closed/],
    [
      'another encoding than it says',
      Buffer.from(`<?xml version="1.0" encoding="UTF-8"?>${svg(`<title>Café</title>${RECT}`)}`, 'latin1'),
      /another encoding/,
    ],
    ['an unknown encoding', `<?xml version="1.0" encoding="klingon-8"?>${svg(RECT)}`, /another encoding/],
    ['a drawing inside a web page', `<html><body><p>our sign<br/></p>${svg(RECT)}</body></html>`, /web page/],
  ])('%s: read as drawn, and told', async (_, file, says) => {
    const artwork = await read(file);
    expect(message(artwork, 'mended')).toMatch(says);
    expect(artwork.shapes).toHaveLength(1);
    expect(artwork.shapes[0].colour).toBe('#ff0000');
  });

  test.each([
    [
      'a prefix of its own for SVG',
      `<s:svg xmlns:s="http://www.w3.org/2000/svg" width="9" height="9"><s:rect width="5" height="5"/></s:svg>`,
    ],
    [
      'namespaces as entities',
      `<!DOCTYPE svg [<!ENTITY ns "http://www.w3.org/2000/svg">]><svg xmlns="&ns;" width="9" height="9"><rect width="5" height="5"/></svg>`,
    ],
    ['a byte order mark', `\uFEFF${svg('<rect width="5" height="5"/>')}`],
  ])('%s is in order and needs no word', async (_, file) => expect(codes(await read(file))).toEqual([]));

  test('UTF-16 in either order', async () => {
    const little = Buffer.from(
      `\uFEFF<?xml version="1.0" encoding="UTF-16"?>${svg('<rect width="5" height="5"/>')}`,
      'utf16le',
    );
    for (const bytes of [little, Buffer.from(little).swap16()]) expect(codes(await read(bytes))).toEqual([]);
  });

  test('what cannot be mended is refused with its line', async () => {
    await expect(
      read(`${svg('<rect width="5"\nheight="5"/>').slice(0, -6)}\n<path d="M0`),
    ).rejects.toMatchObject({
      code: 'broken-xml',
      message: expect.stringMatching(/stops in the middle at line 3/),
    });
  });

  test('emoji with slips put in at random come out as they were', async () => {
    const all = readdirSync('node_modules/@twemoji/svg').filter(
      (name, i) => name.endsWith('.svg') && i % 101 === 0,
    );
    const names = sample(all, 8);
    const slips: ((text: string, i: number) => string)[] = [
      (t) => t.replace(/ xmlns="[^"]*"/, ''),
      (t) =>
        t.replace('>', ' tool:version="0.4">').replace('</svg>', '<tool:view/><rdf:x><rect/></rdf:x></svg>'),
      (t) => t.replace('>', '><title>a & b &eacute;</title>'),
      (t) => `<!-- by hand -->\nhello ${t}`,
      (t) => t.replace(/<path/g, '<PATH').replace(/ fill=/g, ' FILL='),
      (t) => t.replace(/"(#[0-9A-F]+)"/gi, '$1 '),
      (t) => t.replace('</svg>', '<g></svg>'),
    ];
    expect(all.length).toBeGreaterThan(30);
    for (const [i, name] of names.entries()) {
      const text = readFileSync(join('node_modules/@twemoji/svg', name), 'utf8');
      const spoilt = slips
        .filter((_, k) => (i * 7919 + k * 104729) % 3 === 0)
        .reduce((t, slip) => slip(t, i), text);
      const [was, is] = [await read(text), await read(spoilt)];
      expect({ name, shapes: is.shapes }).toEqual({ name, shapes: was.shapes });
      if (spoilt !== text) expect(codes(is)).toContain('mended');
    }
  }, 120_000);
});

describe('styles', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await chromium.launch(BROWSER);
  }, 60_000);
  afterAll(() => browser?.close());

  /** As an independent program draws it: Debian's Chromium. */
  async function drawnBy(text: string): Promise<Pixels> {
    const page = await browser.newPage({ viewport: { width: 200, height: 200 }, deviceScaleFactor: 3 });
    await page.setContent(`<body style="margin:0;background:#8c8c8c">${text}</body>`);
    const shot = await page.screenshot({ type: 'png' });
    await page.close();
    const { data, info } = await sharp(shot).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height };
  }

  const GRID = Array.from(
    { length: 9 },
    (_, i) =>
      `<rect class="c${i} ${i % 2 ? 'odd' : 'even'}" id="r${i}" x="${(i % 3) * 66}" y="${Math.floor(i / 3) * 66}" width="60" height="60"/>`,
  ).join('');
  test.each([
    [
      'custom properties, inherited and with stand-ins',
      `<style>:root{--a:#2e6f7e;--b:var(--a)} .even{fill:var(--b)} .odd{fill:var(--none,var(--nor-this,#e2a21b))}</style><g style="--a:#aa2233">${GRID}</g>`,
    ],
    [
      'custom properties that name one another',
      `<style>svg{--a:var(--b);--b:var(--a)} rect{fill:var(--a,#123456)} .odd{fill:var(--a)}</style><g fill="#654321">${GRID}</g>`,
    ],
    [
      'selectors by place',
      `<style>rect:nth-child(3n+1){fill:#f00} rect:nth-child(2){fill:#0f0!important} rect:last-child{fill:#00f} rect:not(.odd):nth-of-type(5){fill:#ff0}</style><g>${GRID}</g>`,
    ],
    [
      'every way to count places',
      `<style>rect:nth-child(-n+2){fill:#a00} rect:nth-last-child(2n){fill:#0a0} rect:nth-of-type( odd ){fill:#00a} rect:nth-last-of-type(3n + 1){fill:#aa0} circle:nth-of-type(2){fill:#0aa} rect:nth-child(n+9){fill:#a0a}</style><g><circle r="9"/>${GRID}<circle r="6"/></g>`,
    ],
    [
      'combinators and weights',
      `<style>g > .odd{fill:#101080} #r3{fill:#d01020} .c3.odd{fill:#00ff00} rect + rect ~ .c8{fill:#777700} *{fill:#c0c0c0} [id$="5"]{fill:#004400}</style><g>${GRID}</g>`,
    ],
    [
      'the order of sheets, attributes and styles',
      `<style>.odd{fill:#d01020}</style><style>.odd{fill:#10d020} .c1{fill:#fff!important}</style><g fill="#222222">${GRID.replace('class="c1', 'style="fill:#000" class="c1').replace('class="c3', 'fill="#0ff" class="c3')}</g>`,
    ],
    [
      'media and layers',
      `<style>@media screen{.odd{fill:#d01020}} @media print{.even{fill:#000}} @media (prefers-color-scheme: dark){.odd{fill:#fff}} @supports (fill: red){.c4{fill:#8800aa}}</style><g fill="#2a7a2a">${GRID}</g>`,
    ],
    [
      'colours of today',
      `<style>.c0{fill:oklch(0.62 0.15 250)} .c1{fill:oklab(0.7 0.1 -0.05)} .c2{fill:color(srgb 0.2 0.5 0.9)} .c3{fill:hwb(200 10% 20%)} .c4{fill:lab(52% 40 30)} .c5{fill:lch(60% 40 120)} .c6{fill:rgb(10 200 90)} .c7{fill:hsl(300deg 50% 40%)} .c8{fill:RebeccaPurple}</style>${GRID}`,
    ],
    [
      'transforms with units',
      `<style>.c4{transform:translate(20px,10px) rotate(15deg)} .c0{transform:scale(.5)} .c8{transform:translateX(-.2in)}</style>${GRID}`,
    ],
    [
      'geometry and outlines by style',
      `<style>.c4{width:30px;height:20px} .c0{rx:12px} .c1{stroke:#fff;stroke-width:8px} .c2{fill:none;stroke:rgb(0 0 0);stroke-width:6} .c5{display:none} .c6{visibility:hidden}</style><g fill="#336699">${GRID}</g>`,
    ],
    [
      'currentColor',
      `<style>g{color:#b3263a} .even{fill:currentcolor} .odd{fill:none;stroke:currentColor;stroke-width:5}</style><g>${GRID}</g>`,
    ],
  ])(
    '%s come out as a browser draws them',
    async (_, body) => {
      const text = svg(body);
      const artwork = await read(text);
      expect(codes(artwork)).not.toContain('style-left-out');
      const ours = pixels(stackedSvg(artwork, 200).svg, 600);
      expect(differingShare(await drawnBy(text), ours)).toBeLessThanOrEqual(0.003);
    },
    60_000,
  );

  test.each([
    [
      'mixing',
      '<g style="mix-blend-mode:multiply"><rect width="9" height="9"/></g>',
      'blend',
      /mixed with what lies under/,
    ],
    [
      'colours worked out from others',
      '<rect style="fill:color-mix(in srgb, red, blue)" width="9" height="9"/>',
      'style-left-out',
      /color-mix/,
    ],
    [
      'conditions that depend on the page',
      '<style>@container (width > 9px){rect{fill:red}}</style><rect width="9" height="9"/>',
      'style-left-out',
      /@container/,
    ],
    [
      'selectors of no drawing',
      '<style>rect:nth-fish(2){fill:red}</style><rect width="9" height="9"/>',
      'style-left-out',
      /nth-fish/,
    ],
    [
      'sums',
      '<rect style="stroke-width:calc(1px + 2px);stroke:red" width="9" height="9"/>',
      'style-left-out',
      /calc/,
    ],
    [
      'outlines by CSS',
      '<rect style="clip-path:circle(4px)" width="9" height="9"/>',
      'style-left-out',
      /circle/,
    ],
    [
      'strokes that do not grow',
      '<path vector-effect="none" style="vector-effect:non-scaling-stroke" d="M0 0H9V9Z"/>',
      'style-left-out',
      /vector-effect/,
    ],
  ])('%s: told', async (_, body, code, says) => expect(message(await read(svg(body)), code)).toMatch(says));

  test('animation, pointers and fonts of a page need no word', async () => {
    const body =
      '<style>rect{cursor:pointer;transition:fill 1s;will-change:transform;-webkit-tap-highlight-color:red} @keyframes a{to{fill:red}} rect::after{content:"x"} rect:hover{fill:lime}</style><rect width="9" height="9"/>';
    const artwork = await read(svg(body));
    expect([codes(artwork), colours(artwork)]).toEqual([[], ['#000000']]);
  });
});

describe('nothing outside is opened', () => {
  const scratch = mkdtempSync(join(tmpdir(), 'outside-'));
  const pipe = join(scratch, 'pipe');
  beforeAll(() => void execFileSync('mkfifo', [pipe]));
  afterAll(() => rmSync(scratch, { recursive: true, force: true }));

  const RECT = '<rect width="9" height="9"/>';
  const nested = Buffer.from(
    `<svg ${NS} xmlns:xlink="http://www.w3.org/1999/xlink" width="9" height="9"><image xlink:href="/dev/zero" width="9" height="9"/></svg>`,
  ).toString('base64');
  test.each([
    ['a picture by path', `<image href="/dev/zero" width="9" height="9"/>`],
    ['by a prefixed link', `<image xlink:href="/dev/zero" width="9" height="9"/>`],
    ['by an address', `<image href="file:///dev/zero" width="9" height="9"/>`],
    ['a named pipe', `<image href="${pipe}" width="9" height="9"/>`],
    [
      'in an effect',
      `<filter id="f"><feImage href="/dev/zero"/></filter><rect filter="url(#f)" width="9" height="9"/>`,
    ],
    ['by use', `<use href="/dev/zero#a"/>`],
    ['in a paint', `<rect fill="url(/dev/zero#a)" width="9" height="9"/>`],
    ['in a style', `<rect style="fill:url('file:///dev/zero#a')" width="9" height="9"/>`],
    ['in a sheet', `<style>rect{stroke:url(/dev/zero)}</style>`],
    ['by import', `<style>@import url("/dev/zero"); @import "${pipe}";</style>`],
    [
      'by a font',
      `<style>@font-face{font-family:x;src:url(${pipe})}</style><text y="9" font-family="x">a</text>`,
    ],
    [
      'in a drawing inside a drawing',
      `<image href="data:image/svg+xml;base64,${nested}" width="9" height="9"/>`,
    ],
    ['by a sheet of its own', `<?xml-stylesheet href="/dev/zero"?>`],
  ])(
    '%s',
    async (_, body) => {
      const text = svg(body + RECT);
      const tidy = tidySvg(Buffer.from(text)).text;
      expect(tidy).not.toMatch(/dev\/zero|outside-|file:/);
      expect((await read(text)).shapes.length).toBeGreaterThan(0);
    },
    20_000,
  );

  test.each([
    ['an attribute', '<rect width="9" height="9" fill="url(other.svg#a) #b0202f"/>'],
    ['a style', `<rect width="9" height="9" style="fill:url('other.svg#a') #b0202f"/>`],
    ['a sheet', '<style>rect{fill:url(other.svg#a) #b0202f}</style><rect width="9" height="9"/>'],
  ])('what stands behind a paint that lies outside is painted: %s', async (_, body) => {
    expect((await read(svg(body))).shapes.map(({ colour }) => colour)).toEqual(['#b0202f']);
  });

  test('whether a picture is there makes no difference', async () => {
    const at = (path: string) => read(svg(`<image href="${path}" width="9" height="9"/>${RECT}`));
    const real = join(process.cwd(), 'docs/screenshots/order.png');
    expect(await at(real)).toEqual(await at(`${real}.not`));
  });
});

describe('style sheets with as many rules as there are shapes', () => {
  const COUNT = 3000;
  const each = Array.from({ length: COUNT }, (_, i) => i);
  const drawing = (rule: (i: number) => string): Buffer =>
    Buffer.from(
      svg(
        `<style>${each.map((i) => `${rule(i)}{fill:#0${i % 10}0}`).join('')}</style><g>${each
          .map((i) => `<path id="i${i}" class="c${i}" d="M${i % 60} ${Math.floor(i / 60)}h1v1z"/>`)
          .join('')}</g>`,
      ),
    );

  // each of these looked at every sibling of every shape for every rule before: minutes
  test.each<[string, (i: number) => string]>([
    ['by place', (i) => `path:nth-child(${i + 1})`],
    ['by place from the end', (i) => `path:nth-last-of-type(${COUNT - i})`],
    ['by class', (i) => `g > .c${i}`],
  ])('%s: each shape has its own', (_, rule) => {
    const { text } = tidySvg(drawing(rule));
    expect(text.match(/fill="#0\d0"/g)).toHaveLength(COUNT);
    expect(text).toMatch(/id="i1234"[^>]*fill="#040"/);
  });

  test('rules that ask each shape for its neighbours are refused before they are tried', () => {
    expect(() => tidySvg(drawing((i) => `.c${i} ~ path`))).toThrow(/3,000 rules/);
  });
});

describe('the odd ones', () => {
  test('a use that names itself loses itself, not the file', async () => {
    const body =
      '<defs><g id="a"><rect width="5" height="5"/><use href="#b"/></g><g id="b"><use href="#a" x="9"/></g></defs><use href="#a"/><use id="u" href="#u"/><rect x="20" width="5" height="5"/>';
    const artwork = await read(svg(body));
    expect(codes(artwork)).toContain('circular');
    expect(artwork.shapes.length).toBeGreaterThanOrEqual(2);
  });

  test('a path at 1e300 is told, the rest is read', async () => {
    const artwork = await read(svg('<path d="M0 0L1e300 5L5 5Z"/><rect width="5" height="5"/>'));
    expect(message(artwork, 'far-off')).toMatch(/further off than any sheet/);
    expect(artwork.shapes).toHaveLength(1);
  });

  test('layers and ids may be called anything', async () => {
    const names = ['constructor', '__proto__', 'toString', 'hasOwnProperty'];
    const body = names
      .map(
        (name, i) =>
          `<g id="${name}" data-name="${name}"><rect id="x${i}" class="${name}" x="${i * 10}" width="8" height="8"/></g>`,
      )
      .join('');
    const artwork = await read(
      svg(
        `<style>.constructor{fill:var(--constructor,#ff0000)} .__proto__{--__proto__:#00ff00;fill:var(--__proto__)}</style>${body}`,
      ),
    );
    expect(artwork.shapes.map(({ layer }) => layer)).toEqual(names);
    expect(colours(artwork)).toEqual(['#ff0000', '#00ff00', '#000000', '#000000']);
  });

  test('more outlines than can be cut are refused before the resolver is asked', async () => {
    const dots = 'M0 0h1v1z'.repeat(260_000);
    await expect(read(svg(`<path d="${dots}"/>`))).rejects.toMatchObject({ code: 'too-many-loops' });
    const twice = `<defs><path id="p" d="${'M0 0h1v1z'.repeat(60_000)}"/></defs>${'<use href="#p"/>'.repeat(5)}`;
    await expect(read(svg(twice))).rejects.toMatchObject({ code: 'too-many-loops' });
  }, 30_000);
});
