import { expect, test } from '@jest/globals';
import { Users } from './users';

test('what two projects have open is closed with the second of them', () => {
  const users = new Users();
  expect(users.take('stock-plate')).toBe(true);
  expect(users.take('stock-plate')).toBe(false);
  expect(users.leave('stock-plate')).toBe(false);
  expect(users.has('stock-plate')).toBe(true);
  expect(users.leave('stock-plate')).toBe(true);
  expect(users.take('stock-plate')).toBe(true);
});

test('leaving what nobody has open closes it and counts nothing', () => {
  const users = new Users();
  expect(users.leave('stock-plate')).toBe(true);
  expect(users.take('stock-plate')).toBe(true);
});
