import { theme, type ThemeConfig } from 'antd';
import { palettes, type Palette } from './palette.ts';

export type ThemeName = 'light' | 'dark';
const textFace = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";

const tokens = (palette: Palette): NonNullable<ThemeConfig['token']> => ({
  colorPrimary: palette.action,
  colorInfo: palette.action,
  colorSuccess: palette.pass,
  colorWarning: palette.marginal,
  colorError: palette.fail,
  colorText: palette.ink,
  colorTextSecondary: palette.ink2,
  colorTextPlaceholder: palette.ink2,
  colorBgBase: palette.sheet,
  colorBgContainer: palette.sheet,
  colorBgElevated: palette.sheet,
  colorBgContainerDisabled: palette.side,
  colorTextDisabled: palette.ink2,
  colorBorder: palette.line,
  colorBorderSecondary: palette.line,
  colorTextLightSolid: palette.onAction,
  fontFamily: textFace,
  fontSize: 15,
  borderRadius: 2,
  borderRadiusLG: 2,
  borderRadiusSM: 2,
  borderRadiusXS: 2,
  boxShadow: 'none',
  boxShadowSecondary: `0 0 0 1px ${palette.line}`,
  boxShadowTertiary: 'none',
  // A finger takes more room than a pointer.
  controlHeight: matchMedia('(pointer: coarse)').matches ? 44 : 36,
  wireframe: false,
  // Dialogs must appear at once, not wait for an animation that never runs.
  motion: !matchMedia('(prefers-reduced-motion: reduce)').matches,
  motionDurationMid: '0.12s',
  motionDurationSlow: '0.16s',
});

/** What one kind of control wears beside that. */
const components = (palette: Palette): NonNullable<ThemeConfig['components']> => ({
  Button: {
    primaryShadow: 'none',
    defaultShadow: 'none',
    dangerShadow: 'none',
    fontWeight: 400,
    defaultColor: palette.ink,
    defaultBg: palette.sheet,
    defaultBorderColor: palette.edge,
    defaultHoverColor: palette.ink,
    defaultHoverBorderColor: palette.ink,
    defaultHoverBg: palette.sheet,
    defaultActiveColor: palette.ink,
    defaultActiveBorderColor: palette.ink,
    textTextColor: palette.ink,
    textTextHoverColor: palette.ink,
    textTextActiveColor: palette.ink,
    textHoverBg: palette.side,
    linkHoverBg: 'transparent',
    contentFontSize: 15,
  },
  Checkbox: { controlInteractiveSize: 20, colorBorder: palette.edge },
  Form: { verticalLabelPadding: '0 0 3px', labelFontSize: 13.5, labelColor: palette.ink2, itemMarginBottom: 0 },
  Radio: { radioSize: 20, colorBorder: palette.edge },
  Input: { activeShadow: `0 0 0 2px ${palette.actionSoft}`, colorBorder: palette.edge },
  DatePicker: { colorBorder: palette.edge },
  Table: {
    headerBg: palette.sheet,
    headerColor: palette.ink2,
    headerSplitColor: 'transparent',
    headerSortActiveBg: palette.side,
    headerSortHoverBg: palette.side,
    headerFilterHoverBg: palette.side,
    bodySortBg: palette.sheet,
    rowHoverBg: palette.side,
    rowExpandedBg: palette.side,
    borderColor: palette.line,
    cellPaddingBlockSM: 7,
    cellPaddingInlineSM: 8,
    cellFontSizeSM: 15,
    headerBorderRadius: 0,
  },
  Segmented: {
    itemSelectedBg: palette.ink,
    itemSelectedColor: palette.sheet,
    itemColor: palette.ink,
    itemHoverColor: palette.ink,
    itemHoverBg: palette.side,
    itemActiveBg: palette.side,
    trackBg: palette.sheet,
    trackPadding: 0,
  },
  Select: { optionSelectedBg: palette.actionSoft, optionActiveBg: palette.side, colorBorder: palette.edge },
  Modal: { titleFontSize: 20 },
});

/** Ant Design in this application's own clothes: square, flat, without shadows. */
export function antTheme(name: ThemeName): ThemeConfig {
  const palette: Palette = palettes[name];
  return {
    algorithm: name === 'dark' ? theme.darkAlgorithm : theme.defaultAlgorithm,
    cssVar: { key: `fw-${name}` },
    token: tokens(palette),
    components: components(palette),
  };
}

/** Puts the palette on the document as style-sheet variables. */
export function applyPalette(name: ThemeName): void {
  const root = document.documentElement;
  root.dataset['theme'] = name;
  root.style.colorScheme = name;
  for (const [key, value] of Object.entries(palettes[name]) as [string, string][])
    root.style.setProperty(`--${key.replace(/([A-Z0-9]+)/g, (part) => `-${part.toLowerCase()}`)}`, value);
}
