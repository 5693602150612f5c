import type { AdjustmentKind } from '@/core/colour/adjust';
import type { BlendMode } from '@/core/colour/blendModes';
import type { LayerState } from '@/engine/protocol';

/** What a blend mode does, in a painter's words. */
export const BLEND_WORDS: Record<BlendMode, { name: string; does: string }> = {
  normal: { name: 'Normal', does: 'Paint lies over what is below as a film: a glaze glazes, body colour covers.' },
  multiply: { name: 'Multiply', does: 'Darkens like a shadow or a sheet of coloured glass; white changes nothing.' },
  screen: { name: 'Screen', does: 'Lightens like a second lamp; black changes nothing.' },
  overlay: { name: 'Overlay', does: 'Darkens the darks and lightens the lights: more contrast, colour laid through.' },
  darken: { name: 'Darken', does: 'Keeps whichever is darker, channel by channel.' },
  lighten: { name: 'Lighten', does: 'Keeps whichever is lighter, channel by channel.' },
  'color-dodge': { name: 'Color dodge', does: 'A strong glow: what is light already burns out.' },
  'color-burn': { name: 'Color burn', does: 'A deep, rich shade: what is dark already goes black.' },
  'hard-light': { name: 'Hard light', does: 'As overlay, led by this layer: its darks shade, its lights glow.' },
  'soft-light': { name: 'Soft light', does: 'A gentle shade or glow; middle grey changes nothing. Good for textures.' },
  difference: { name: 'Difference', does: 'Shows how far the two are apart.' },
  exclusion: { name: 'Exclusion', does: 'As difference, softer.' },
  hue: { name: 'Hue', does: 'Takes the hue from here; strength and value stay as below.' },
  saturation: { name: 'Saturation', does: 'Takes the strength of colour from here; hue and value stay as below.' },
  color: { name: 'Color', does: 'Lays colour over a grey picture: the values below are kept.' },
  luminosity: { name: 'Luminosity', does: 'Takes the values from here; the colour below is kept.' },
};

export const ADJUST_WORDS: Record<AdjustmentKind, string> = {
  levels: 'Levels',
  curves: 'Curves',
  hue: 'Hue and saturation',
  warmth: 'Warmth',
  blur: 'Blur',
};

/** What a layer is and how it is, in a few words. */
export function stateWords(layer: LayerState): string {
  const seen = layer.opacity < 1 ? `, ${Math.round(layer.opacity * 100)} %` : '';
  const mode = layer.blend === 'normal' ? '' : `, ${BLEND_WORDS[layer.blend].name.toLowerCase()}`;
  return own(layer) + mode + seen;
}

function own(layer: LayerState): string {
  switch (layer.kind) {
    case 'drawing':
      return 'drawing';
    case 'picture':
      return 'picture';
    case 'tone':
      return 'light';
    case 'group':
      return 'group';
    case 'adjust':
      return layer.adjust ? ADJUST_WORDS[layer.adjust.kind].toLowerCase() : 'adjustment';
    default: {
      const how = layer.tacky
        ? 'setting'
        : layer.wet
          ? layer.dry
            ? 'wet over dry'
            : 'wet'
          : layer.dry
            ? 'dry'
            : 'empty';
      return layer.thicknessUm >= 1 ? `${how}, ${Math.round(layer.thicknessUm)} µm` : how;
    }
  }
}
