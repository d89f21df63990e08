import { theme } from 'ant-design-vue';
import { colours } from './theme.ts';

/** The same beside the mould, in the dark; they too stand in styles.css. */
const nightColours: typeof colours = {
  paper: '#10181B',
  sheet: '#172226',
  ink: '#ECE5D5',
  quiet: '#9DA9A9',
  rule: '#2C393D',
  edge: '#53636A',
  resin: '#F2A93B',
  resinInk: '#F2A93B',
  ember: '#FF8272',
  moss: '#86C79A',
  tide: '#66C3CC',
};

const themeOf = (own: typeof colours) => ({
  colorPrimary: own.resinInk,
  colorLink: own.tide,
  colorText: own.ink,
  colorTextSecondary: own.quiet,
  colorBgBase: own.sheet,
  colorBgContainer: own.sheet,
  colorBgLayout: own.paper,
  colorBorder: own.edge,
  colorBorderSecondary: own.rule,
  colorError: own.ember,
  colorSuccess: own.moss,
  colorInfo: own.tide,
  borderRadius: 3,
  fontFamily: '"Atkinson Hyperlegible Next", sans-serif',
  fontSize: 14,
  controlHeight: 32,
});
/** The way from tokens to colours is named in both: one that is left out would stay as it was. */
export const antTheme = { algorithm: theme.defaultAlgorithm, token: themeOf(colours) };
/** What is filled with a light colour bears dark letters. */
export const antNightTheme = {
  algorithm: theme.darkAlgorithm,
  token: { ...themeOf(nightColours), colorTextLightSolid: nightColours.paper },
};
