import { config } from 'zod';

// Schemas make no code of their own here, which the page's policy forbids: it would be tried, and reported, once a page.
config({ jitless: true });
