import { expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import { readMonth } from './readMonth';

test.each([
  ['02/27', '2027-02'],
  ['2/27', '2027-02'],
  ['02 / 27', '2027-02'],
  ['0227', '2027-02'],
  ['02-2027', '2027-02'],
  ['2.2027', '2027-02'],
  ['2027-02', '2027-02'],
  ['2027/2', '2027-02'],
  [' 2027.12 ', '2027-12'],
  ['Feb 2027', '2027-02'],
  ['Feb. 27', '2027-02'],
  ['februar 2027', '2027-02'],
  ['Dezember 2031', '2031-12'],
])('%j is %s', (text, month) => {
  expect(readMonth(text)).toBe(month);
});

test.each(['', '13/27', '00/27', '2027-13', 'soon', 'Foo 2027', '2027', '02/27/28', '٠٢/٢٧'])(
  '%j is no month',
  (text) => {
    const read = readMonth(text);
    expect(isRefusal(read) && read.message).toMatch(/Write it like 02\/27/);
  },
);
