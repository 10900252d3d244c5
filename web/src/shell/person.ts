import type { Person } from '@yosegi/contract';
import { createContext, useContext } from 'react';

const PersonContext = createContext<Person | null>(null);
export const PersonProvider = PersonContext.Provider;

/** Whether the person here may override; the server decides, this only spares them a refusal. */
export const useIsOwner = () => useContext(PersonContext)?.role === 'owner';
