import { z } from 'zod';

// Compiling a schema to code asks whether the page's policy allows that, which the policy counts as a breach.
z.config({ jitless: true });
