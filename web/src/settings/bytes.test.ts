// @vitest-environment jsdom
import { expect, it } from 'vitest';
import { bytes } from './bytes';

it.each([
  [0, '0 kB'],
  [499, '0 kB'],
  [6_400, '6 kB'],
  [999_600, '1.0 MB'],
  [1_234_567, '1.2 MB'],
  [212_000_000, '212 MB'],
  [4_200_000_000, '4.2 GB'],
])('%i bytes are %s', (size, said) => {
  expect(bytes(size)).toBe(said);
});
