'use client';
import { useEffect, useState } from 'react';
import { readPhoto } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { decodePhoto } from '../photos';

/** A photo of the painting, small enough to be looked through at once. */
export interface DeskPhoto {
  readonly id: string;
  readonly name: string;
  readonly url: string;
  readonly pixels: ImageData;
}

/** Longest side at which photos are looked through, pixels. */
const SIDE = 640;

/** The photos of a painting. */
export function usePhotos(record: PaintingRecord | undefined): readonly DeskPhoto[] | undefined {
  const [photos, setPhotos] = useState<readonly DeskPhoto[]>();
  useEffect(() => {
    if (!record) return;
    let gone = false;
    const urls: string[] = [];
    const load = async () => {
      const found: DeskPhoto[] = [];
      for (const { id, name } of record.photos) {
        const blob = await readPhoto(record.id, id);
        const bitmap = blob && (await decodePhoto(blob, name).catch(() => undefined));
        if (!bitmap) continue;
        const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
        const canvas = new OffscreenCanvas(
          Math.max(1, Math.round(bitmap.width * scale)),
          Math.max(1, Math.round(bitmap.height * scale)),
        );
        const context = canvas.getContext('2d')!;
        context.imageSmoothingQuality = 'high';
        context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
        bitmap.close();
        const url = URL.createObjectURL(blob);
        urls.push(url);
        found.push({ id, name, url, pixels: context.getImageData(0, 0, canvas.width, canvas.height) });
      }
      if (!gone) setPhotos(found);
    };
    void load();
    return () => {
      gone = true;
      urls.forEach((url) => URL.revokeObjectURL(url));
    };
  }, [record]);
  return photos;
}
