// @vitest-environment jsdom
import { describe, expect, test } from 'vitest';
import { Problem } from '../api/client';
import { wrongOf } from './wrongOf';

const fields = ['doseGrams', 'name'] as const;
const sentence = 'Dose must be from 3 to 40 g, not 99.';

describe('an error of the server in a form', () => {
  test('stands beside the field that it names, and nowhere else', () => {
    const { wrong, elsewhere } = wrongOf(new Problem(sentence, 400, 'doseGrams'), fields);
    expect([wrong('doseGrams'), wrong('name'), elsewhere]).toEqual([sentence, undefined, null]);
  });

  test('is shown by itself where the form has no such field', () => {
    const { wrong, elsewhere } = wrongOf(new Problem(sentence, 400, 'strokes'), fields);
    expect([wrong('doseGrams'), wrong('name'), elsewhere]).toEqual([undefined, undefined, sentence]);
  });

  test('is shown by itself where it names no field', () => {
    expect(wrongOf(new Problem(sentence, 409), fields).elsewhere).toBe(sentence);
  });

  test('is nothing before there is one', () => {
    const { wrong, elsewhere } = wrongOf(null, fields);
    expect([wrong('doseGrams'), elsewhere]).toEqual([undefined, null]);
  });
});
