import type { Schemas } from '../shared/api/client';

/** What each family is called on screen, in plain words. */
export const familyNames: Record<Schemas['MachineFamily'], string> = {
  BoilerDirect: 'Boiler lever, direct (dipper)',
  BoilerSpring: 'Boiler lever with a spring',
  PortableLever: 'Portable lever, kettle-filled',
  HeatedGroup: 'Kettle-filled lever with a heated group',
  TwinArmBasket: 'Twin-arm press, water in the basket',
  TwinArmChamber: 'Twin-arm press with an open chamber',
  SteppedLever: 'Stepped lever, several pulls a shot',
  HandPump: 'Hand-pump portable',
};
