import theme from 'ant-design-vue/es/theme';
import { colours, nightColours } from './theme.ts';

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
