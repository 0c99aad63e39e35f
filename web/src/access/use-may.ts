import { roleMay, type Permission, type Standing } from '@fairwatt/contract';
import { useAccessQuery, useShopQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';

/** What whoever works at this screen is; null for nobody. */
export function useRole(): Standing | null {
  const technician = useAppSelector((state) => state.session.technician);
  const access = useAccessQuery().data;
  const people = useShopQuery().data?.technicians;
  if (access?.signing === 'secret' && access.person !== null) return access.person.role;
  return people?.find(({ id }) => id === technician)?.role ?? null;
}

/** Whether whoever works at this screen may do things of a kind. The server holds to the same matrix. */
export function useMay(permission: Permission): boolean {
  const role = useRole();
  return role !== null && roleMay(role, permission);
}
