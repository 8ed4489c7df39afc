import { config } from 'zod';

// The content security policy allows no code made at run time, so schemas must not be compiled into functions. This has
// to be settled before the first schema is made, which is why everything else is fetched after it.
config({ jitless: true });
void import('./app.tsx');
