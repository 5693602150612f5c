/**
 * CxF3 (ISO 17972-1, "Colour data exchange format"): XML with an object for each sample and a `ReflectanceSpectrum` in
 * it. Only what a paint needs is read: names and spectra. Entities and document types are refused.
 */
import { XMLBuilder, XMLParser } from 'fast-xml-parser';
import { PainterError } from '@/core/errors';
import { checkSample, checkSize, MAX_SAMPLES, plainName, type SpectralSample } from './spectra';
import { xmlText } from './xmlText';

const NAMESPACE = 'http://colorexchangeformat.com/CxF3-core';
/** Deepest nesting of elements: more is an attack, not a measurement. */
const DEEPEST = 24;

type Node = { [name: string]: unknown };

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

const nodes = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : [value]).filter((v): v is Node => typeof v === 'object' && v !== null);
const child = (node: Node | undefined, name: string): Node | undefined => nodes(node?.[name])[0];
const attribute = (node: Node | undefined, name: string): string | undefined => {
  const value = node?.[`@${name}`];
  return typeof value === 'string' ? xmlText(value) : undefined;
};
/**
 * Reads every object with a reflectance spectrum.
 * @throws PainterError with a sentence when it is no such file, has no spectra, or contradicts itself
 */
export function readCxf(text: string): SpectralSample[] {
  checkSize(text.length);
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) {
    throw new PainterError(
      'This file declares a document type of its own, which measurements never need: it is not opened.',
    );
  }
  let tree: Node;
  try {
    if (depth(text) > DEEPEST) throw new PainterError('This file is nested more deeply than a measurement can be.');
    tree = parser.parse(text, true) as Node;
  } catch (error) {
    if (error instanceof PainterError) throw error;
    throw new PainterError('This is no CxF file, or it is damaged: its XML does not close.');
  }
  const root = child(tree, 'CxF');
  if (!root) throw new PainterError('This is no CxF3 file: it does not begin with a CxF element.');
  const resources = child(root, 'Resources');
  const specifications = nodes(child(resources, 'ColorSpecificationCollection')?.['ColorSpecification']);
  const ranges = new Map(specifications.map((s) => [attribute(s, 'Id'), rangeOf(s)]));
  const found: SpectralSample[] = [];
  for (const object of nodes(child(resources, 'ObjectCollection')?.['Object'])) {
    const spectra = nodes(child(object, 'ColorValues')?.['ReflectanceSpectrum']).concat(
      nodes(child(object, 'DeviceColorValues')?.['ReflectanceSpectrum']),
    );
    for (const spectrum of spectra) found.push(sampleOf(object, spectrum, ranges));
    if (found.length > MAX_SAMPLES) throw new PainterError(`This file has more than ${MAX_SAMPLES} samples.`);
  }
  if (found.length === 0) throw new PainterError('This CxF file has no reflectance spectra.');
  found.forEach(checkSample);
  return found;
}

/** How deeply elements are nested, counted before anything is built. */
function depth(text: string): number {
  let now = 0;
  let most = 0;
  for (const [tag] of text.matchAll(/<(?:!--[\s\S]*?--|\/?[A-Za-z][^>]*)>/g)) {
    if (tag.startsWith('<!--') || tag.endsWith('/>')) continue;
    now += tag.startsWith('</') ? -1 : 1;
    most = Math.max(most, now);
  }
  return most;
}

function rangeOf(specification: Node): { start?: number; step?: number } {
  const range = child(child(specification, 'MeasurementSpec'), 'WavelengthRange');
  const number = (name: string) => {
    const value = Number(attribute(range, name));
    return Number.isFinite(value) && value > 0 ? value : undefined;
  };
  return { start: number('StartWL'), step: number('Increment') };
}

function sampleOf(
  object: Node,
  spectrum: Node,
  ranges: ReadonlyMap<string | undefined, { start?: number; step?: number }>,
): SpectralSample {
  const name = plainName(attribute(object, 'Name') ?? attribute(object, 'Id') ?? 'sample');
  const text = spectrum['#text'];
  const values = (typeof text === 'string' ? text.trim() : '').split(/\s+/).filter(Boolean).map(Number);
  const range = ranges.get(attribute(spectrum, 'ColorSpecification')) ?? [...ranges.values()][0];
  const start = Number(attribute(spectrum, 'StartWL') ?? range?.start ?? NaN);
  const step = Number(attribute(spectrum, 'Increment') ?? range?.step ?? 10);
  if (!Number.isFinite(start) || !(step > 0)) {
    throw new PainterError(`“${name}” does not say at which wavelength its spectrum starts (StartWL).`);
  }
  const scale = Math.max(0, ...values) > 2 ? 100 : 1;
  return {
    name,
    wavelengths: values.map((_, i) => start + i * step),
    reflectance: values.map((v) => v / scale),
  };
}

/**
 * Writes samples as CxF3. Their wavelengths must rise in even steps.
 * @throws RangeError when they do not, or there is nothing to write
 */
export function writeCxf(samples: readonly SpectralSample[], description: string, created: Date): string {
  if (samples.length === 0) throw new RangeError('There is nothing to write.');
  const [start, next] = samples[0].wavelengths;
  const step = next - start;
  for (const { wavelengths } of samples) {
    if (wavelengths.some((nm, i) => Math.abs(nm - start - i * step) > 1e-6)) {
      throw new RangeError('A CxF spectrum has even steps, and all in one file have the same.');
    }
  }
  const date = created.toISOString().slice(0, 19);
  const tree = {
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    'cc:CxF': {
      '@xmlns:cc': NAMESPACE,
      'cc:FileInformation': {
        'cc:Creator': 'Stigmos',
        'cc:CreationDate': date,
        'cc:Description': plainName(description),
      },
      'cc:Resources': {
        'cc:ObjectCollection': {
          'cc:Object': samples.map((s, i) => ({
            '@ObjectType': 'Standard',
            '@Name': plainName(s.name),
            '@Id': `paint-${i + 1}`,
            'cc:CreationDate': date,
            'cc:ColorValues': {
              'cc:ReflectanceSpectrum': {
                '@MeasureDate': date,
                '@ColorSpecification': 'reflectance',
                '@StartWL': String(start),
                '#text': s.reflectance.map((r) => r.toFixed(6)).join(' '),
              },
            },
          })),
        },
        'cc:ColorSpecificationCollection': {
          'cc:ColorSpecification': {
            '@Id': 'reflectance',
            'cc:MeasurementSpec': {
              'cc:MeasurementType': 'Spectrum_Reflectance',
              'cc:GeometryChoice': {
                'cc:SingleAngle': {
                  'cc:SingleAngleConfiguration': 'Annular',
                  'cc:IlluminationAngle': '45',
                  'cc:MeasurementAngle': '0',
                },
              },
              'cc:WavelengthRange': { '@StartWL': String(start), '@Increment': String(step) },
            },
          },
        },
      },
    },
  };
  return new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true }).build(tree) as string;
}
