/** The typefaces that come with the app; all under the SIL Open Font License. */

export interface ShippedFont {
  readonly id: string;
  readonly name: string;
  /** Lightest and heaviest; one and the same for a font of one weight. */
  readonly weights: readonly [number, number];
  /** Files in the order in which they are asked for a letter. */
  readonly files: readonly string[];
}

const variable = (id: string, name: string, weights: readonly [number, number]): ShippedFont => ({
  id,
  name,
  weights,
  files: ['latin', 'latin-ext'].map(
    (part) => `@fontsource-variable/${id}/files/${id}-${part}-wght-normal.woff2`,
  ),
});

const single = (
  id: string,
  name: string,
  weight = 400,
  parts = ['latin', 'latin-ext'],
  folder = id,
): ShippedFont => ({
  id: weight === 400 ? id : `${id}-${weight}`,
  name,
  weights: [weight, weight],
  files: parts.map((part) => `@fontsource/${folder}/files/${folder}-${part}-${weight}-normal.woff2`),
});

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  variable('archivo', 'Archivo', [100, 900]),
  variable('oswald', 'Oswald', [200, 700]),
  variable('rubik', 'Rubik', [300, 900]),
  variable('bitter', 'Bitter', [100, 900]),
  variable('playfair-display', 'Playfair Display', [400, 900]),
  variable('bricolage-grotesque', 'Bricolage Grotesque', [200, 800]),
  variable('atkinson-hyperlegible-next', 'Atkinson Hyperlegible Next', [200, 800]),
  single('barlow-condensed', 'Barlow Condensed SemiBold', 600),
  single('bebas-neue', 'Bebas Neue'),
  single('anton', 'Anton'),
  single('alfa-slab-one', 'Alfa Slab One'),
  single('lobster', 'Lobster'),
  single('pacifico', 'Pacifico'),
  single('stardos-stencil', 'Stardos Stencil Bold', 700, ['latin']),
];

/** The typeface that stands in for one that is not there. */
export const STAND_IN = SHIPPED_FONTS[0].id;
