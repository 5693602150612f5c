/**
 * CGATS text (ISO 28178, "Exchange format for colour and process control data using XML or ASCII text"): keywords,
 * then the names of the fields, then a line of values for every sample. Spectra come in three manners: a field for
 * each wavelength (`SPECTRAL_NM_380`, `nm380`, `SPEC_380` ...), or pairs of `SPECTRAL_NM` and `SPECTRAL_PCT` or
 * `SPECTRAL_DEC`.
 */
import { PainterError } from '@/core/errors';
import { checkSample, checkSize, MAX_SAMPLES, plainName, type SpectralSample } from './spectra';

const WAVELENGTH_FIELD = /^(?:SPECTRAL|SPEC|NM|R|LAMBDA)?[_ ]?(?:NM|DEC|PCT)?[_ ]?(\d{3})(?:\.0+)?(?:_?NM)?$/i;

/**
 * Reads every sample with a spectrum from CGATS text.
 * @throws PainterError with a sentence when it is no such text, has no spectra, or contradicts itself
 */
export function readCgats(text: string): SpectralSample[] {
  checkSize(text.length);
  const found: SpectralSample[] = [];
  let tables = 0;
  let rest = tokens(text);
  for (;;) {
    const table = readTable(rest);
    if (!table) break;
    tables++;
    found.push(...samplesOf(table));
    if (found.length > MAX_SAMPLES) throw new PainterError(`This file has more than ${MAX_SAMPLES} samples.`);
    ({ rest } = table);
  }
  if (tables === 0) throw new PainterError('This is no CGATS file: it has no BEGIN_DATA_FORMAT and BEGIN_DATA.');
  if (found.length === 0) {
    throw new PainterError(
      'This CGATS file has no spectra: it needs fields such as SPECTRAL_NM_380, one for each wavelength.',
    );
  }
  found.forEach(checkSample);
  return found;
}

interface Table {
  readonly keywords: ReadonlyMap<string, string>;
  readonly fields: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly rest: string[];
}

/** Words and quoted words; comments are left out. */
function tokens(text: string): string[] {
  const found: string[] = [];
  for (const line of text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)) {
    for (const match of line.matchAll(/"((?:[^"]|"")*)"|#.*|[^\s"]+/g)) {
      if (match[1] !== undefined) found.push(match[1].replace(/""/g, '"'));
      else if (!match[0].startsWith('#')) found.push(match[0]);
    }
  }
  return found;
}

function readTable(words: readonly string[]): Table | undefined {
  const format = words.indexOf('BEGIN_DATA_FORMAT');
  if (format < 0) return undefined;
  const formatEnd = words.indexOf('END_DATA_FORMAT', format);
  const data = words.indexOf('BEGIN_DATA', format);
  if (formatEnd < 0 || data < formatEnd) {
    throw new PainterError('This CGATS file is cut short: its list of fields has no end, or no data follow.');
  }
  const keywords = new Map<string, string>();
  for (let i = 0; i + 1 < data; i++) {
    if (/^[A-Z][A-Z0-9_]+$/.test(words[i])) keywords.set(words[i], words[i + 1]);
  }
  const fields = words.slice(format + 1, formatEnd).flatMap((word) => word.split(/\s+/));
  const dataEnd = words.indexOf('END_DATA', data);
  if (dataEnd < 0) throw new PainterError('This CGATS file is cut short: END_DATA is missing.');
  const values = words.slice(data + 1, dataEnd);
  if (fields.length === 0) throw new PainterError('This CGATS file names no fields.');
  if (values.length % fields.length !== 0) {
    throw new PainterError(
      `This CGATS file has ${values.length} values for ${fields.length} fields: a line is incomplete.`,
    );
  }
  const rows = Array.from({ length: values.length / fields.length }, (_, i) =>
    values.slice(i * fields.length, (i + 1) * fields.length),
  );
  const promised = keywords.get('NUMBER_OF_SETS');
  if (promised !== undefined && Number(promised) !== rows.length) {
    throw new PainterError(`This CGATS file promises ${promised} samples and has ${rows.length}.`);
  }
  return { keywords, fields, rows, rest: words.slice(dataEnd + 1) };
}

function samplesOf({ keywords, fields, rows }: Table): SpectralSample[] {
  const columns = fields
    .map((field, i) => ({ i, nm: Number(WAVELENGTH_FIELD.exec(field)?.[1] ?? NaN) }))
    .filter(({ nm }) => nm >= 200 && nm <= 1100)
    .sort((p, q) => p.nm - q.nm);
  const pairs = fields.flatMap((field, i) =>
    field === 'SPECTRAL_NM' && /^SPECTRAL_(PCT|DEC)$/.test(fields[i + 1] ?? '') ? [i] : [],
  );
  if (columns.length < 2 && pairs.length < 2) return [];
  const named = ['SAMPLE_NAME', 'SAMPLE_ID', 'SampleName', 'SAMPLE_LOC']
    .map((f) => fields.indexOf(f))
    .find((i) => i >= 0);
  const read = rows.map((row, k) => {
    const points =
      columns.length >= 2
        ? columns.map(({ i, nm }) => [nm, Number(row[i])] as const)
        : pairs.map((i) => [Number(row[i]), Number(row[i + 1])] as const).sort((p, q) => p[0] - q[0]);
    return {
      name: plainName(named === undefined ? `Sample ${k + 1}` : row[named]),
      wavelengths: points.map(([nm]) => nm),
      reflectance: points.map(([, r]) => r),
    };
  });
  // a share, or a percentage: said by the field, by the norm, or by the values themselves
  const norm = Number(keywords.get('SPECTRAL_NORM'));
  const told = fields.some((f) => f.includes('PCT'))
    ? 100
    : fields.some((f) => f.includes('DEC'))
      ? 1
      : norm || undefined;
  const largest = Math.max(...read.flatMap((s) => s.reflectance.filter(Number.isFinite)));
  const scale = told ?? (largest > 2 ? 100 : 1);
  return read.map((s) => ({ ...s, reflectance: s.reflectance.map((r) => r / scale) }));
}

/**
 * Writes samples, all at the same wavelengths, as CGATS text.
 * @throws RangeError when they are not, or there is none
 */
export function writeCgats(samples: readonly SpectralSample[], descriptor: string, created: Date): string {
  const [first] = samples;
  if (!first) throw new RangeError('There is nothing to write.');
  const nm = first.wavelengths;
  if (samples.some((s) => s.wavelengths.join() !== nm.join())) {
    throw new RangeError('Samples in one file must be measured at the same wavelengths.');
  }
  const lines = [
    'CGATS.17',
    'ORIGINATOR "Stigmos"',
    `DESCRIPTOR "${plainName(descriptor)}"`,
    `CREATED "${created.toISOString().slice(0, 10)}"`,
    'MEASUREMENT_GEOMETRY "45/0, specular excluded"',
    `NUMBER_OF_FIELDS ${nm.length + 2}`,
    'BEGIN_DATA_FORMAT',
    ['SAMPLE_ID', 'SAMPLE_NAME', ...nm.map((w) => `SPECTRAL_NM_${w}`)].join('\t'),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${samples.length}`,
    'BEGIN_DATA',
    ...samples.map((s, i) => [i + 1, `"${plainName(s.name)}"`, ...s.reflectance.map((r) => r.toFixed(6))].join('\t')),
    'END_DATA',
    '',
  ];
  return lines.join('\n');
}
