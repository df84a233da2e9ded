import fc from 'fast-check';
import { expect, it } from 'vitest';
import { rowNumbering, rowTable } from '.';

/** Numbers of rows: close together, far apart, and larger than 32 bits. */
const rows = fc.array(fc.oneof(fc.nat(2000), fc.nat(2 ** 31 - 1), fc.maxSafeNat()), { maxLength: 500 });

it('gives back the number of each row, and none for others', () =>
  fc.assert(
    fc.property(rows, rows, (put, others) => {
      const table = rowTable();
      const map = new Map<number, number>();
      put.forEach((row, number) => {
        table.set(row, number);
        map.set(row, number);
      });
      for (const row of [...put, ...others]) expect(table.get(row)).toBe(map.get(row) ?? -1);
    }),
  ));

it('numbers rows in the order in which they are first asked for', () =>
  fc.assert(
    fc.property(rows, (asked) => {
      const numbering = rowNumbering();
      const met = [...new Set(asked)];
      expect(asked.map((row) => numbering.of(row))).toEqual(asked.map((row) => met.indexOf(row)));
      expect(numbering.rows).toEqual(met);
    }),
  ));
