const systems = [
  [/iPad/, 'Tablet'],
  [/iPhone/, 'Phone'],
  [/Android.*Mobile/, 'Phone'],
  [/Android/, 'Tablet'],
] as const;

/** What a device may be called in the list, from what its browser says of itself. */
export const deviceName = (agent: string) => systems.find(([of]) => of.test(agent))?.[1] ?? 'Computer';
