// What wheels do to a value.

/** A colour that is added, as a place in a disc (right red, then over yellow and green against the clock), and a level for all channels. */
export type Wheel = readonly [x: number, y: number, level: number];

/** What a wheel adds to red, green and blue; together nothing but its level. */
export const wheelChannels = ([x, y]: Wheel): readonly [number, number, number] => [
  x,
  -x / 2 + (y * Math.sqrt(3)) / 2,
  -x / 2 - (y * Math.sqrt(3)) / 2,
];

interface Wheeled {
  lift: Wheel;
  gamma: Wheel;
  gain: Wheel;
  offset: Wheel;
  liftTo: number;
  gainFrom: number;
}

/** What becomes of a display-encoded value of one channel: lifted at its dark end, scaled at its bright one, bent in the middle, shifted as a whole. */
export function wheeled(v: number, channel: 0 | 1 | 2, d: Wheeled): number {
  const [lift, gamma, gain, offset] = [d.lift, d.gamma, d.gain, d.offset].map((own) => ({
    level: own[2],
    colour: wheelChannels(own)[channel],
  }));
  const lifted = v + (lift!.level * 0.5 + lift!.colour * 0.25) * Math.max(0, 1 - v / Math.max(0.01, d.liftTo));
  const scaled =
    lifted > d.gainFrom ? d.gainFrom + (lifted - d.gainFrom) * 2 ** (gain!.level * 1.5 + gain!.colour * 0.75) : lifted;
  const power = 2 ** -(gamma!.level + gamma!.colour * 0.5);
  const bent = scaled <= 0 || power === 1 ? scaled : scaled ** power;
  return Math.max(0, bent + offset!.level * 0.5 + offset!.colour * 0.25);
}
