/**
 * Seeded chance for the simulated lifter and for tests: the core has no chance of its own, a
 * seed always comes in as an argument.
 */
export interface Random {
  /** Uniform on [0, 1). */
  uniform(): number;
  /** Standard normal (Marsaglia's polar method). */
  normal(): number;
}

/** sfc32 (Doty-Humphrey, PractRand), 128-bit state, seeded from one 32-bit number by splitmix. */
export function seededRandom(seed: number): Random {
  let mix = seed >>> 0;
  const next32 = () => {
    mix = (mix + 0x9e3779b9) >>> 0;
    let z = mix;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return (z ^ (z >>> 15)) >>> 0;
  };
  let a = next32();
  let b = next32();
  let c = next32();
  let counter = 1;
  let spare: number | undefined;

  const uniform = () => {
    const t = (((a + b) | 0) + counter) | 0;
    counter = (counter + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = ((c << 21) | (c >>> 11)) + t;
    return (t >>> 0) / 4294967296;
  };

  const normal = () => {
    if (spare !== undefined) {
      const value = spare;
      spare = undefined;
      return value;
    }
    for (;;) {
      const u = 2 * uniform() - 1;
      const v = 2 * uniform() - 1;
      const s = u * u + v * v;
      if (s > 0 && s < 1) {
        const factor = Math.sqrt((-2 * Math.log(s)) / s);
        spare = v * factor;
        return u * factor;
      }
    }
  };

  return { uniform, normal };
}

/** A 32-bit seed from text (FNV-1a), so that a name always gives the same simulated lifter. */
export function seedFromText(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) {
    hash ^= text.charCodeAt(i);
    hash = Math.imul(hash, 0x01000193);
  }
  return hash >>> 0;
}
