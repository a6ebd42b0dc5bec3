/** The unit a builder's wrench has, kept in this browser; the figures themselves are the server's. */
import { useLocalStorage } from '@mantine/hooks';
import type { Schemas } from '../api/client';

export type TorqueUnit = 'N·m' | 'lbf·ft' | 'lbf·in';
export const TORQUE_UNITS: TorqueUnit[] = ['N·m', 'lbf·ft', 'lbf·in'];

export function useTorqueUnit() {
  return useLocalStorage<TorqueUnit>({ key: 'gurvo.torque', defaultValue: 'N·m', getInitialValueInEffect: false });
}

/** A torque in one unit, as the server said it. */
export function torqueIn(said: Schemas['TorqueIn'][], unit: TorqueUnit): string {
  return said.find((one) => one.unit === unit)?.text ?? '';
}
