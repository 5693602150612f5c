import { strToU8, zipSync } from 'fflate';
import type { Solid } from './reliefSolid';

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const TYPES = `${HEAD}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `${HEAD}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;

/** 3MF (core specification 1.3): one object, millimetres. */
export function encode3mf({ corners, triangles }: Solid): Uint8Array<ArrayBuffer> {
  const mm = (v: number) => `${Math.round(v * 1e4) / 1e4}`;
  const vertices: string[] = [];
  for (let i = 0; i < corners.length; i += 3)
    vertices.push(`<vertex x="${mm(corners[i])}" y="${mm(corners[i + 1])}" z="${mm(corners[i + 2])}"/>`);
  const faces: string[] = [];
  for (let i = 0; i < triangles.length; i += 3)
    faces.push(`<triangle v1="${triangles[i]}" v2="${triangles[i + 1]}" v3="${triangles[i + 2]}"/>`);
  const model = `${HEAD}<model unit="millimeter" xml:lang="en-US" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources><object id="1" type="model"><mesh><vertices>${vertices.join('')}</vertices><triangles>${faces.join('')}</triangles></mesh></object></resources><build><item objectid="1"/></build></model>`;
  return zipSync({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(RELATIONS),
    '3D/3dmodel.model': strToU8(model),
  }) as Uint8Array<ArrayBuffer>;
}
