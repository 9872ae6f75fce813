/** What is drawn for each family of sums. */

export interface Sketch {
  m?: string
  l?: string
  c?: string
  a?: string
}
/** In a field of 200 by 120: `m` metal, `l` lines, `c` centre lines, `a` what is measured. */
export const DRAWN: Record<string, Sketch> = {
  'Bores and rings': {
    m: 'M30 10H60V110H30Z M140 10H170V110H140Z',
    l: 'M60 40H140V70H60Z M60 48H140 M60 58H140',
    c: 'M100 4V116',
    a: 'M62 24H138 M62 24l8 -4v8z M138 24l-8 -4v8z M62 92H138 M62 92l8 -4v8z M138 92l-8 -4v8z',
  },
  'Journals and bearings': {
    m:
      'M100 14A46 46 0 0 1 146 60H136A36 36 0 0 0 100 24Z M100 106A46 46 0 0 1 54 60H64A36 ' +
      '36 0 0 0 100 96Z M54 60A46 46 0 0 1 100 14V24A36 36 0 0 0 64 60Z M146 60A46 46 0 0 1 ' +
      '100 106V96A36 36 0 0 0 136 60Z',
    l: 'M131 60a31 31 0 1 1 -62 0a31 31 0 1 1 62 0z',
    c: 'M40 60H160 M100 4V116',
    a: 'M136 60H160 M136 60l8 -4v8z',
  },
  'Gaps from depths': {
    m: 'M20 20H50V100H20Z M150 20H180V100H150Z',
    l: 'M50 34H92V86H50 M150 44H124V76H150',
    c: 'M10 60H190',
    a: 'M92 60H124 M92 60l8 -4v8z M124 60l-8 -4v8z M50 104H124 M50 104l8 -4v8z M124 104l-8 -4v8z',
  },
  'Lengths to cut': {
    l: 'M16 52H156V68H16Z M156 46H180V74H156Z M24 52V68 M32 52V68 M40 52V68 M48 52V68',
    c: 'M8 60H192',
    a: 'M56 40V80 M16 92H56 M16 92l8 -4v8z M56 92l-8 -4v8z',
  },
  'Ring gear and pinion': {
    l: 'M40 14H66V106H40Z M66 24L80 28V92L66 96 M80 44L132 30V90L80 76 M132 50H184V70H132',
    c: 'M53 4V116 M70 60H192',
    a: 'M84 30l8 -8 M84 90l8 8',
  },
  'Flanges, runout, preload': {
    m: 'M30 14H52V106H30Z',
    l: 'M52 30L66 34V86L52 90 M66 44H150V76H66 M150 52H182V68H150',
    c: 'M20 60H194',
    a: 'M100 22V42 M100 42l-4 -8h8z M164 40A24 24 0 0 1 164 80 M164 80l9 -1 -5 -7z',
  },
  Steering: {
    l: 'M24 20H48V60H24Z M152 20H176V60H152Z M36 60V84 M164 60V84 M36 84H164 M92 80H108V88H92Z',
    c: 'M100 10V112',
    a: 'M48 24L150 24 M48 24l8 -4v8z M150 24l-8 -4v8z M48 56L150 56',
  },
  Suspension: {
    l: 'M20 40Q60 6 100 6Q140 6 180 40 M100 72m-30 0a30 30 0 1 0 60 0a30 30 0 1 0 -60 0 M10 104H190',
    c: 'M60 72H140',
    a: 'M100 12V70 M100 12l-4 8h8z M100 70l-4 -8h8z',
  },
  Driveline: {
    l:
      'M8 34H60V46H8Z M66 42L134 74L128 84L60 52Z M136 74H192V86H136Z M63 41a5 5 0 1 0 .1 0 ' +
      'M133 75a5 5 0 1 0 .1 0',
    c: 'M4 40H100 M100 80H196',
    a: 'M84 40A30 30 0 0 1 82 56',
  },
  'Pulleys and belts': {
    l:
      'M60 70m-36 0a36 36 0 1 0 72 0a36 36 0 1 0 -72 0 M156 44m-18 0a18 18 0 1 0 36 0a18 18 ' +
      '0 1 0 -36 0 M62 34L152 26 M70 105L162 61',
    c: 'M60 64V76 M54 70H66',
    a: 'M106 14V40 M106 40l-4 -8h8z',
  },
  'Earth paths and cables': {
    l:
      'M14 40H54V84H14Z M22 40V32H30V40 M38 40V32H46V40 M130 46H180V96H130Z M54 76Q92 100 ' +
      '130 76 M155 96V110 M140 110H170',
    c: 'M54 52Q92 20 130 58',
    a: 'M92 88m-10 0a10 10 0 1 0 20 0a10 10 0 1 0 -20 0 M87 91L92 82L97 91',
  },
  'Ignition timing': {
    l: 'M100 60m-46 0a46 46 0 1 0 92 0a46 46 0 1 0 -92 0 M100 14V24 M118 18L115 27 M134 28L128 35',
    c: 'M100 4V116 M40 60H160',
    a: 'M100 8A52 52 0 0 1 138 24',
  },
  Compression: {
    m: 'M40 10H160V24H40Z',
    l: 'M52 24V104 M148 24V104 M52 60H148V92H52Z M52 68H148 M92 2H108V10H92Z',
    c: 'M100 0V116',
    a: 'M100 28V58 M100 28l-4 8h8z M100 58l-4 -8h8z',
  },
  'Fills and oil holes': {
    l: 'M40 20V104H160V20 M40 60Q70 54 100 60T160 60 M120 20V84 M116 52H124 M116 68H124',
    a: 'M70 6V48 M70 48l-5 -9h10z',
  },
  'Valve gear': {
    l:
      'M44 30Q100 10 156 30L150 42Q100 24 50 42Z M96 30a6 6 0 1 0 .1 0 M52 42V100 M148 ' +
      '42V84 M132 84H164L158 92H138Z M40 100a12 12 0 1 0 24 0a12 12 0 1 0 -24 0',
    a: 'M172 60V84 M172 84l-4 -8h8z',
  },
  'Torque wrench': {
    l:
      'M14 52H44V68H14Z M44 56H176V64H44Z M20 60m-12 0a12 12 0 1 0 24 0a12 12 0 1 0 -24 0 ' +
      'M140 52H186V68H140Z',
    a: 'M8 90H60 M8 90l8 -4v8z M60 90l-8 -4v8z M60 90H164 M164 90l-8 -4v8z',
  },
  'Bolts without a figure': {
    l:
      'M40 30H64V90H40Z M64 46H160V74H64Z M84 46V74 M92 46V74 M100 46V74 M108 46V74 M116 ' +
      '46V74 M124 46V74 M132 46V74 M140 46V74',
    c: 'M30 60H180',
    a: 'M64 104H160 M64 104l8 -4v8z M160 104l-8 -4v8z',
  },
  'What a reading is worth': {
    m: 'M10 36H50V84H10Z M150 36H190V84H150Z',
    l: 'M50 30V90 M150 30V90 M104 60m-8 0a8 8 0 1 0 16 0a8 8 0 1 0 -16 0',
    a: 'M74 60H134 M74 52V68 M134 52V68',
  },
  'First start': {
    l: 'M100 66m-44 0a44 44 0 1 1 88 0 M100 66L126 40 M62 66H70 M130 66H138 M100 30V38',
    c: 'M30 96H170',
    a: 'M126 40l-9 2 7 7z',
  },
}
