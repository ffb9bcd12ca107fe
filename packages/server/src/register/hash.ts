const lanes = new Uint32Array(2);
const whole = new BigInt64Array(lanes.buffer);

/**
 * A key as a number of 64 bits, as the register keeps it. Two lanes of multiply and xor with a final mix (as in MurmurHash3,
 * A. Appleby, public domain): among 50 million keys a question about 300,000 others meets a false one once in a million times.
 */
export function keyHash(key: string): bigint {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < key.length; i++) {
    const code = key.charCodeAt(i);
    a = Math.imul(a ^ code, 0x9e3779b1);
    b = Math.imul(b ^ code, 0x5f356495);
  }
  a = Math.imul(a ^ (a >>> 16), 0x85ebca6b) ^ Math.imul(b ^ (b >>> 13), 0xc2b2ae35);
  b = Math.imul(b ^ (b >>> 16), 0x85ebca6b) ^ Math.imul(a ^ (a >>> 13), 0xc2b2ae35);
  lanes[0] = a;
  lanes[1] = b;
  return whole[0]!;
}
