import type { Picture } from '@/core/picture/picture';
import type { Relief } from './reliefSolid';

/** Heights of support and paint at every cell, um: the picture has the tooth only as light shows it. */
export function reliefUm({ painting, relief }: Picture): Float32Array {
  const { width, height, surface, arena } = painting;
  const um = arena.f32.slice(relief, relief + width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const ground = surface.um[(y % surface.size) * surface.size + (x % surface.size)];
      um[y * width + x] += (1 - surface.shading) * ground;
    }
  }
  return um;
}

/**
 * The relief of a painting as a grid of points, each the mean of the cells around it.
 * @param columns points across at most, @param widthMm size of the model, @param times heights are exaggerated so often,
 * beside what the model is larger or smaller than the painting
 */
export function reliefOf(picture: Picture, columns: number, widthMm: number, times: number): Relief {
  const { painting } = picture;
  const um = reliefUm(picture);
  const { width, height } = painting;
  const wide = Math.min(columns, width);
  const high = Math.max(1, Math.round((height * wide) / width));
  const heights = new Float32Array(wide * high);
  const perMm = (widthMm / (width * painting.mmPerPx)) * times * 0.001;
  for (let row = 0; row < high; row++) {
    const [top, bottom] = [Math.floor((row * height) / high), Math.ceil(((row + 1) * height) / high)];
    for (let column = 0; column < wide; column++) {
      const [left, right] = [Math.floor((column * width) / wide), Math.ceil(((column + 1) * width) / wide)];
      let sum = 0;
      for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) sum += um[y * width + x];
      heights[row * wide + column] = (sum / ((bottom - top) * (right - left))) * perMm;
    }
  }
  return { columns: wide, rows: high, heights, step: widthMm / wide };
}
