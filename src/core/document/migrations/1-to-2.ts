// Documents of format 1, as they were stored, become documents of format 2. Nothing is checked here: what does not follow the
// schema afterwards is found by it. Parts that are the same object twice become the same object, so that steps are told apart fast.

type Raw = Record<string, unknown>;
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);
const each = (list: unknown, change: (item: Raw) => Raw): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isRaw(item) ? change(item) : item)) : list;

/** The same work once for every object. */
function once(change: (raw: Raw) => Raw): (raw: Raw) => Raw {
  const done = new WeakMap<Raw, Raw>();
  return (raw) => {
    const known = done.get(raw);
    if (known) return known;
    const made = change(raw);
    done.set(raw, made);
    return made;
  };
}

/** Values move their jitter among their drivers; they stand anywhere within a layer. */
const isValue = (raw: Raw): boolean => 'still' in raw || 'keys' in raw;
const driven = once((raw) => {
  if (isValue(raw)) {
    if (!('jitter' in raw) && !('follow' in raw)) return raw;
    const { jitter, follow: _, ...value } = raw;
    return isRaw(jitter) ? { ...value, drivers: [{ type: 'jitter', ...jitter }] } : value;
  }
  const entries = Object.entries(raw).map(([name, part]) => [name, within(part)] as const);
  return entries.every(([name, part]) => raw[name] === part) ? raw : Object.fromEntries(entries);
});
function within(part: unknown): unknown {
  if (isRaw(part)) return driven(part);
  if (!Array.isArray(part) || !part.some(isRaw)) return part;
  const parts = part.map(within);
  return parts.every((item, i) => item === part[i]) ? part : parts;
}

function source(raw: unknown): unknown {
  if (!isRaw(raw)) return raw;
  const { kind } = raw;
  if (kind === 'stock') return { type: 'stock', values: { stock: { still: raw['stock'] } } };
  if (kind !== 'colour') return raw;
  return { type: 'colour', values: { colour: raw['colour'], size: { still: [raw['width'], raw['height']] } } };
}

/** Light wrap worked where layers are mixed, and of several that were on only the last one did. */
function line(passes: unknown): unknown {
  if (!Array.isArray(passes)) return passes;
  const wraps = passes.filter((pass) => isRaw(pass) && pass['type'] === 'light-wrap' && pass['on'] === true);
  return each(passes, (pass) => ({
    ...pass,
    space: pass['type'] === 'light-wrap' ? 'shot' : 'layer',
    ...(wraps.includes(pass) && pass !== wraps.at(-1) ? { on: false } : {}),
  }));
}

const layer = once((raw) => {
  const { source: of, passes, motionBlur, sound, ...rest } = driven(raw);
  return {
    ...rest,
    source: source(of),
    passes: line(passes),
    sound: isRaw(sound) ? { ...sound, effects: [] } : sound,
    // degrees of a turning shutter become a share of the frame
    motionBlur: isRaw(motionBlur) ? { ...motionBlur, shutter: Number(motionBlur['shutter']) / 360 } : motionBlur,
    ends: {},
  };
});
const shot = once((raw) => ({ ...raw, layers: each(raw['layers'], layer), within: null }));
const stock = once((raw) => ({ ...raw, line: [] }));

export const from1To2 = (raw: Raw): Raw => ({
  ...raw,
  format: 2,
  stock: each(raw['stock'], stock),
  shots: each(raw['shots'], shot),
  tracks: [],
  stills: [],
  jigs: [],
});
