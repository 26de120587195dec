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

/** What becomes of display-encoded values of one channel: lifted at their dark end, scaled at their bright one, bent in the middle, shifted as a whole. */
export function wheeled(channel: 0 | 1 | 2, d: Wheeled): (v: number) => number {
  const part = (own: Wheel, ofLevel: number, ofColour: number) =>
    own[2] * ofLevel + wheelChannels(own)[channel] * ofColour;
  const lift = part(d.lift, 0.5, 0.25);
  const gain = 2 ** part(d.gain, 1.5, 0.75);
  const power = 2 ** -part(d.gamma, 1, 0.5);
  const offset = part(d.offset, 0.5, 0.25);
  return (v) => {
    const lifted = v + lift * Math.max(0, 1 - v / Math.max(0.01, d.liftTo));
    const scaled = lifted > d.gainFrom ? d.gainFrom + (lifted - d.gainFrom) * gain : lifted;
    const bent = scaled <= 0 || power === 1 ? scaled : scaled ** power;
    return Math.max(0, bent + offset);
  };
}
