import { can, type Person, type Right } from '@yosegi/contract';
import { createContext, useContext } from 'react';

const PersonContext = createContext<Person | null>(null);
export const PersonProvider = PersonContext.Provider;

/** Whether the person here may do something; the server decides, this only spares them a refusal. */
export const useCan = (right: Right) => can(useContext(PersonContext), right);

/** Who works here; null before anybody signed in. */
export const usePerson = (): Person | null => useContext(PersonContext);
