import type { ThemeConfig } from 'antd';

/** The look of the room: a light-grey studio, so that values are judged right. */
export const colours = {
  room: '#9a9a98',
  paper: '#d9d7d2',
  paperLight: '#e8e6e1',
  ink: '#22211f',
  inkSoft: '#57544e',
  line: '#bcb9b2',
  verdigris: '#2e6f66',
  /** Verdigris for words: dark enough on paper. */
  verdigrisText: '#225a52',
  vermilion: '#b4472c',
} as const;

export const theme: ThemeConfig = {
  token: {
    colorPrimary: colours.verdigris,
    colorInfo: colours.verdigris,
    colorLink: colours.verdigrisText,
    colorTextPlaceholder: colours.inkSoft,
    colorSuccess: colours.verdigris,
    colorError: colours.vermilion,
    colorWarning: colours.vermilion,
    colorText: colours.ink,
    colorTextSecondary: colours.inkSoft,
    colorBgBase: colours.paperLight,
    colorBgContainer: colours.paperLight,
    colorBgElevated: colours.paperLight,
    colorBgLayout: colours.room,
    colorBorder: '#a9a69f',
    colorBorderSecondary: colours.line,
    borderRadius: 3,
    fontFamily: "'Source Sans 3 Variable', sans-serif",
    fontSize: 13,
    controlHeight: 28,
    motionDurationFast: '0.08s',
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.14s',
    boxShadow: '0 1px 3px rgba(34,33,31,.25)',
    boxShadowSecondary: '0 2px 8px rgba(34,33,31,.25)',
  },
  components: {
    Slider: {
      railSize: 3,
      handleSize: 9,
      handleSizeHover: 10,
      trackBg: '#6f8f88',
      railBg: '#b3b0a8',
      railHoverBg: '#a5a29a',
    },
    Button: { defaultShadow: 'none', primaryShadow: 'none', defaultBg: '#efede8' },
    Segmented: { trackBg: '#c8c5be', itemSelectedBg: '#f0eee9', itemColor: '#45423d' },
    Tooltip: { colorBgSpotlight: '#3a3834' },
  },
};
