/** 64-bit hash of a text as 16 hex digits: two 32-bit multiplicative hashes with avalanche (MurmurHash3 finaliser, public domain). */
export function hash(text: string): string {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  }
  return mixed(a, b) + mixed(b, a);
}

function mixed(a: number, b: number): string {
  let h = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  h ^= h >>> 16;
  return (h >>> 0).toString(16).padStart(8, '0');
}
