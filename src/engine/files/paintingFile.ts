import { encodeStigmosFile, paletteSchema } from '@/core/formats/stigmosFile';
import type { Step } from '@/core/formats/step';
import type { Studio } from '@/core/journal/studio';
import type { Keeping } from '@/engine/keeping/keeping';
import { readPhoto } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

/** The own file of a painting that is kept here, with its photos and what is set out for it. */
export async function paintingFile(
  studio: Studio,
  keeping: Keeping,
  title: string,
  record: PaintingRecord | null,
  thumbnail: Uint8Array | undefined,
  {
    ready = () => {},
    strokesAlone = false,
    step,
  }: {
    /** Called when everything is at hand, just before the state is read. */
    readonly ready?: () => void;
    /** Whether the paint is left out. */
    readonly strokesAlone?: boolean;
    /** Is told how far it is. */
    readonly step?: Step;
  } = {},
): Promise<Uint8Array<ArrayBuffer>> {
  const photos = await Promise.all(
    (record?.photos ?? []).map(async ({ id, name }) => {
      const blob = await readPhoto(keeping.id, id);
      return blob && { name, type: blob.type, bytes: new Uint8Array(await blob.arrayBuffer()) };
    }),
  );
  ready();
  return encodeStigmosFile(
    studio,
    keeping.entries,
    title,
    photos.filter((p) => p !== null),
    {
      thumbnail,
      palette: paletteSchema.safeParse(record?.palette).data,
      lamp: record?.lamp,
      missing: keeping.missing,
      strokesAlone,
      step,
    },
  );
}
