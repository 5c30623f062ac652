import { ink } from '../../theme/system';

/**
 * How each quantity is drawn everywhere, on screen and on paper: colour, dash and width together, never colour alone.
 */
export const quantity = {
  pressure: { label: 'Pressure', stroke: ink('pressure'), dash: undefined, width: 2.6, text: ink('pressure') },
  flow: { label: 'Flow', stroke: ink('flow'), dash: '1 0', width: 1.6, text: ink('flow') },
  grams: { label: 'Cup', stroke: ink('grams'), dash: '6 4', width: 1.8, text: ink('grams') },
  temperature: {
    label: 'Temperature',
    stroke: ink('temperature'),
    dash: '1.5 4',
    width: 2.4,
    text: ink('temperatureText'),
  },
  resistance: { label: 'Resistance', stroke: ink('resistance'), dash: '10 3 2 3', width: 1.6, text: ink('resistance') },
} as const;

export type Quantity = keyof typeof quantity;
