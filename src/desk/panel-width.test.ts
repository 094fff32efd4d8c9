import { expect, it } from 'vitest';
import { PANEL, panelWidthIn, withinPanel } from './panel-width';

it('reads the width that a browser was left with', () => {
  expect(panelWidthIn('600')).toBe(600);
  expect(panelWidthIn(String(PANEL.most))).toBe(PANEL.most);
});

it('begins as wide as it always was for a browser that was never here, or says nonsense', () => {
  for (const cookie of [undefined, '', 'wide', '-500', '1e9', '600px', '99999'])
    expect(panelWidthIn(cookie)).toBe(PANEL.begin);
});

it('stays between what can be read and what leaves the board its room', () => {
  expect(withinPanel(10)).toBe(PANEL.least);
  expect(withinPanel(5000)).toBe(PANEL.most);
  expect(panelWidthIn('9999')).toBe(PANEL.most);
  expect(withinPanel(500.4)).toBe(500);
});
