import type { Schemas } from '../api/client';

/** What each role may, as it is chosen from. */
export const ROLES: { value: Schemas['PersonRow']['role']; label: string }[] = [
  { value: 'viewer', label: 'viewer: looks' },
  { value: 'builder', label: 'builder: records' },
  { value: 'lead', label: 'lead: signs' },
];
